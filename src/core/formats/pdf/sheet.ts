import fontkit from "@pdf-lib/fontkit";
import { PDFDocument, rgb, type PDFFont, type PDFPage } from "pdf-lib";
import { unpackWoff } from "./woff";

export const PAPERS = { a4: [595.28, 841.89], letter: [612, 792] } as const;
export type Paper = keyof typeof PAPERS;
export interface Fonts {
  text: Uint8Array;
  bold: Uint8Array;
}

export const POINTS_PER_MM = 72 / 25.4;
export const MARGIN = 42;
export const INK = rgb(0.11, 0.1, 0.09);
const SOFT = rgb(0.33, 0.32, 0.29);
const LINE = rgb(0.72, 0.69, 0.63);
const LEADING = 1.32;

/** A document being written from top to bottom. */
export interface Sheet {
  doc: PDFDocument;
  page: PDFPage;
  y: number;
  size: readonly [number, number];
  text: PDFFont;
  bold: PDFFont;
  known: ReadonlySet<number>;
}

export function newPage(s: Sheet): void {
  s.page = s.doc.addPage([...s.size]);
  s.y = s.size[1] - MARGIN;
}

/** Pages from here on lie the other way round. */
export function turnPaper(s: Sheet): void {
  s.size = [s.size[1], s.size[0]];
}

/** An empty document with fonts in it. A fixed date keeps the same plan byte-identical. */
export async function openSheet(title: string, fonts: Fonts, paper: Paper): Promise<Sheet> {
  const doc = await PDFDocument.create();
  doc.registerFontkit(fontkit);
  doc.setTitle(title);
  doc.setCreationDate(new Date(0));
  doc.setModificationDate(new Date(0));
  const text = await doc.embedFont(unpackWoff(fonts.text), { subset: true });
  const s: Sheet = {
    doc,
    known: new Set(text.getCharacterSet()),
    page: undefined as unknown as PDFPage,
    y: 0,
    size: PAPERS[paper],
    text,
    bold: await doc.embedFont(unpackWoff(fonts.bold), { subset: true }),
  };
  newPage(s);
  return s;
}

/** Numbers the pages, names the plan on each by its fingerprint, and hands the bytes over. */
export async function closeSheet(s: Sheet, foot: string, plan: string): Promise<Uint8Array> {
  const pages = s.doc.getPages();
  pages.forEach((page, i) => {
    const number = `${plan && `plan ${plan}   `}${i + 1} / ${pages.length}`;
    const x = page.getWidth() - MARGIN - s.text.widthOfTextAtSize(number, 8);
    page.drawText(number, { x, y: 22, size: 8, font: s.text, color: INK });
    page.drawText(printable(s, foot).slice(0, 90), { x: MARGIN, y: 22, size: 8, font: s.text, color: SOFT });
  });
  return s.doc.save();
}

const IN_WORDS: Record<string, string> = {
  Ω: "ohm",
  "→": "to",
  "−": "-",
  µ: "u",
  μ: "u",
  "≥": "at least ",
  "≤": "at most ",
  "∞": "none",
};
/** Characters that the shipped font lacks are written in words or left out. */
export const printable = (s: Pick<Sheet, "known">, text: string): string =>
  [...text].map((ch) => (s.known.has(ch.codePointAt(0)!) ? ch : (IN_WORDS[ch] ?? ""))).join("");

const widths = new WeakMap<PDFFont, Map<string, number>>();
/** Width of a text, letter by letter: shaping the same words again and again would take most of a print's time. */
export function widthOf(font: PDFFont, text: string, size: number): number {
  const known = widths.get(font) ?? new Map<string, number>();
  widths.set(font, known);
  let sum = 0;
  for (const ch of text) {
    let w = known.get(ch);
    if (w === undefined) known.set(ch, (w = font.widthOfTextAtSize(ch, 1)));
    sum += w;
  }
  return sum * size;
}

/** Breaks at blanks; a word longer than the line is cut. */
export function wrap(text: string, font: PDFFont, size: number, width: number): string[] {
  const lines: string[] = [];
  let line = "";
  for (let word of text.split(/\s+/)) {
    while (widthOf(font, word, size) > width) {
      let n = word.length - 1;
      while (n > 1 && widthOf(font, word.slice(0, n), size) > width) n--;
      lines.push(...(line ? [line] : []), word.slice(0, n));
      line = "";
      word = word.slice(n);
    }
    const next = line ? `${line} ${word}` : word;
    if (widthOf(font, next, size) > width) {
      lines.push(line);
      line = word;
    } else line = next;
  }
  return [...lines, line];
}

/** Room left on the page, in points. */
export const room = (s: Sheet): number => s.y - MARGIN;
export const inner = (s: Sheet): number => s.size[0] - 2 * MARGIN;

export interface SayOptions {
  size?: number;
  bold?: boolean;
  indent?: number;
  gap?: number;
  soft?: boolean;
}

/** A paragraph. */
export function say(s: Sheet, text: string, o: SayOptions = {}): void {
  const size = o.size ?? 9.5;
  const font = o.bold ? s.bold : s.text;
  const x = MARGIN + (o.indent ?? 0);
  const lines = wrap(printable(s, text), font, size, s.size[0] - MARGIN - x);
  const height = lines.length * size * LEADING + (o.gap ?? 3);
  if (s.y - height < MARGIN) newPage(s);
  for (const line of lines) {
    s.page.drawText(line, { x, y: s.y - size, size, font, color: o.soft ? SOFT : INK });
    s.y -= size * LEADING;
  }
  s.y -= o.gap ?? 3;
}

/** A heading with a line under it; it never stands alone at the foot of a page. */
export function heading(s: Sheet, text: string, why = ""): void {
  if (room(s) < 80) newPage(s);
  s.y -= 6;
  say(s, text, { size: 13, bold: true, gap: 1 });
  if (why) say(s, why, { size: 9, soft: true, gap: 1 });
  s.page.drawLine({
    start: { x: MARGIN, y: s.y },
    end: { x: s.size[0] - MARGIN, y: s.y },
    thickness: 0.8,
    color: INK,
  });
  s.y -= 5;
}

export interface Column {
  title: string;
  /** Share of the width. */
  share: number;
  bold?: boolean;
  /** An empty box to tick instead of text. */
  box?: boolean;
}

/** A table whose head comes back on each page; a row is never broken. */
export function table(s: Sheet, columns: Column[], rows: string[][], size = 8.5): void {
  const total = columns.reduce((n, c) => n + c.share, 0);
  const widths = columns.map((c) => (c.share / total) * inner(s));
  const xs = widths.map((_, i) => MARGIN + widths.slice(0, i).reduce((a, b) => a + b, 0));
  const head = () => {
    columns.forEach((c, i) =>
      s.page.drawText(printable(s, c.title), { x: xs[i]!, y: s.y - size, size: size - 1, font: s.text, color: SOFT }),
    );
    s.y -= size * LEADING + 1;
  };
  if (room(s) < 50) newPage(s);
  head();
  for (const row of rows) {
    const cells = columns.map((c, i) =>
      c.box ? [""] : wrap(printable(s, row[i] ?? ""), c.bold ? s.bold : s.text, size, widths[i]! - 5),
    );
    const height = Math.max(...cells.map((l) => l.length)) * size * LEADING + 4;
    if (s.y - height < MARGIN) {
      newPage(s);
      head();
    }
    s.page.drawLine({
      start: { x: MARGIN, y: s.y + 1 },
      end: { x: s.size[0] - MARGIN, y: s.y + 1 },
      thickness: 0.4,
      color: LINE,
    });
    cells.forEach((lines, i) => {
      if (columns[i]!.box)
        s.page.drawRectangle({
          x: xs[i]!,
          y: s.y - size - 2,
          width: size + 2,
          height: size + 2,
          borderColor: INK,
          borderWidth: 0.8,
        });
      lines.forEach((t, k) =>
        s.page.drawText(t, {
          x: xs[i]!,
          y: s.y - size - 1 - k * size * LEADING,
          size,
          font: columns[i]!.bold ? s.bold : s.text,
          color: INK,
        }),
      );
    });
    s.y -= height;
  }
  s.y -= 4;
}

/** A line to tick: a box and what is to be done. */
export function tickLine(s: Sheet, text: string, size = 9): void {
  const lines = wrap(printable(s, text), s.text, size, inner(s) - 18);
  const height = lines.length * size * LEADING + 4;
  if (s.y - height < MARGIN) newPage(s);
  s.page.drawRectangle({ x: MARGIN, y: s.y - size - 1, width: 9, height: 9, borderColor: INK, borderWidth: 0.8 });
  lines.forEach((t, k) =>
    s.page.drawText(t, { x: MARGIN + 16, y: s.y - size - k * size * LEADING, size, font: s.text, color: INK }),
  );
  s.y -= height;
}
