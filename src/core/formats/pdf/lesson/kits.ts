import type { Circuit } from "../../../circuit";
import { lessonOf, type KitContents } from "../../../lesson";
import {
  closeSheet,
  INK,
  MARGIN,
  newPage,
  openSheet,
  printable,
  widthOf,
  wrap,
  type Fonts,
  type Paper,
  type Sheet,
} from "../sheet";

/** Two cards beside each other, two above each other. */
const ACROSS = 2;
const DOWN = 2;
const GAP = 10;
const FOOT = 24;
const BIG = 18;
const LEAST = 5.5;
const LEADING = 1.25;

interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** As large as everything still fits; what does not fit at the least size is told instead of cut off. */
function fitted(s: Sheet, lines: readonly string[], w: number, h: number): { size: number; rows: string[] } {
  for (let size = 10; size >= LEAST; size -= 0.5) {
    const rows = lines.flatMap((t) => wrap(printable(s, t), s.text, size, w));
    if (rows.length * size * LEADING <= h) return { size, rows };
  }
  const size = LEAST;
  const most = Math.floor(h / (size * LEADING)) - 1;
  const rows = lines.flatMap((t) => wrap(printable(s, t), s.text, size, w));
  return { size, rows: [...rows.slice(0, most), `and ${rows.length - most} lines more: see the parts list`] };
}

/** A card for a box: whose it is, what lies in it, and where to tick it out and back. */
export function card(s: Sheet, k: KitContents, title: string, of: number, plan: string, b: Box): void {
  s.page.drawRectangle({ x: b.x, y: b.y - b.h, width: b.w, height: b.h, borderColor: INK, borderWidth: 0.6 });
  const text = (t: string, y: number, size: number, bold = false) =>
    s.page.drawText(t, { x: b.x + 8, y, size, font: bold ? s.bold : s.text, color: INK });
  text(`Bench ${k.bench} of ${of}`, b.y - BIG - 4, BIG, true);
  const name = printable(s, title);
  const size = Math.min(11, (11 * (b.w - 16)) / Math.max(1, widthOf(s.text, name, 11)));
  text(name, b.y - BIG - 20, size);
  const top = b.y - BIG - 32;
  const list = fitted(
    s,
    k.lines.map((x) => `${x.number} × ${x.what}`),
    b.w - 16,
    top - (b.y - b.h) - 22,
  );
  list.rows.forEach((t, i) => text(t, top - list.size - i * list.size * LEADING, list.size));
  text(`out: ________  back: ________${plan && `     plan ${plan}`}`, b.y - b.h + 7, 8);
}

/** Where cards stand on a page, and how many there are on one. */
export function gridOf(s: Sheet): { most: number; at(k: number): Box } {
  const w = (s.size[0] - 2 * MARGIN - (ACROSS - 1) * GAP) / ACROSS;
  const h = (s.size[1] - 2 * MARGIN - FOOT - (DOWN - 1) * GAP) / DOWN;
  return {
    most: ACROSS * DOWN,
    at: (k) => ({
      x: MARGIN + (k % ACROSS) * (w + GAP),
      y: s.size[1] - MARGIN - Math.floor(k / ACROSS) * (h + GAP),
      w,
      h,
    }),
  };
}

/** A card for the box of each bench: its number, what lies in it, and where to tick it out and back. */
export async function printKits(c: Circuit, fonts: Fonts, paper: Paper = "a4"): Promise<Uint8Array> {
  const l = lessonOf(c);
  const s = await openSheet(`${l.title}, kit labels`, fonts, paper);
  const grid = gridOf(s);
  l.kits.forEach((k, i) => {
    const on = i % grid.most;
    if (i && on === 0) newPage(s);
    card(s, k, l.title, l.kits.length, l.plan, grid.at(on));
  });
  return closeSheet(s, `${l.title}: one card for each box`, l.plan);
}
