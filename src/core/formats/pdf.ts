import fontkit from "@pdf-lib/fontkit";
import { PDFDocument, rgb, type PDFFont, type PDFPage } from "pdf-lib";
import { isLaid, PHASES } from "../wiring";
import type { PlanText } from "./markdown";
import { unpackWoff } from "./woff";

const A4: [number, number] = [595.28, 841.89];
const MARGIN = 45;
const INK = rgb(0.11, 0.1, 0.09);

interface Sheet {
  doc: PDFDocument;
  page: PDFPage;
  y: number;
  text: PDFFont;
  bold: PDFFont;
  known: ReadonlySet<number>;
}

function newPage(s: Sheet) {
  s.page = s.doc.addPage(A4);
  s.y = A4[1] - MARGIN;
}

/** Breaks at blanks; a word longer than the line is cut. */
function wrap(text: string, font: PDFFont, size: number, width: number): string[] {
  const lines: string[] = [];
  let line = "";
  for (let word of text.split(/\s+/)) {
    while (font.widthOfTextAtSize(word, size) > width) {
      let n = word.length - 1;
      while (n > 1 && font.widthOfTextAtSize(word.slice(0, n), size) > width) n--;
      lines.push(...(line ? [line] : []), word.slice(0, n));
      line = "";
      word = word.slice(n);
    }
    const next = line ? `${line} ${word}` : word;
    if (font.widthOfTextAtSize(next, size) > width) {
      lines.push(line);
      line = word;
    } else line = next;
  }
  return [...lines, line];
}

/** Characters that the shipped font lacks are written in words or left out. */
const printable = (known: ReadonlySet<number>, text: string) =>
  [...text.replace(/Ω/g, "ohm")].filter((ch) => known.has(ch.codePointAt(0)!)).join("");

function say(
  s: Sheet,
  text: string,
  o: { size?: number; bold?: boolean; indent?: number; box?: boolean; gap?: number } = {},
) {
  const size = o.size ?? 9.5;
  const font = o.bold ? s.bold : s.text;
  const x = MARGIN + (o.indent ?? 0) + (o.box ? 16 : 0);
  const lines = wrap(printable(s.known, text), font, size, A4[0] - MARGIN - x);
  const height = lines.length * size * 1.35 + (o.gap ?? 3);
  if (s.y - height < MARGIN) newPage(s);
  if (o.box)
    s.page.drawRectangle({ x: MARGIN, y: s.y - size, width: 9, height: 9, borderColor: INK, borderWidth: 0.8 });
  for (const line of lines) {
    s.page.drawText(line, { x, y: s.y - size, size, font, color: INK });
    s.y -= size * 1.35;
  }
  s.y -= o.gap ?? 3;
}

/** A rail or splice says everything by its name; a pin also says where it is. */
const place = (end: string, words: string) => (end === words ? end : `${end} (${words})`);

/** The printed plan on A4: verdict and cautions first, then run sheet with boxes, checks and parts. Fonts are handed in. */
export async function planPdf(p: PlanText, fonts: { text: Uint8Array; bold: Uint8Array }): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  doc.registerFontkit(fontkit);
  doc.setTitle(p.title);
  // A fixed date keeps the same plan byte-identical.
  doc.setCreationDate(new Date(0));
  doc.setModificationDate(new Date(0));
  const text = await doc.embedFont(unpackWoff(fonts.text), { subset: true });
  const s: Sheet = {
    doc,
    known: new Set(text.getCharacterSet()),
    page: undefined as unknown as PDFPage,
    y: 0,
    text,
    bold: await doc.embedFont(unpackWoff(fonts.bold), { subset: true }),
  };
  newPage(s);
  say(s, p.title, { size: 20, bold: true, gap: 6 });
  say(s, p.verdict.words, { size: 13, bold: true, gap: 8 });
  for (const f of p.findings)
    say(s, `${f.severity.toUpperCase()}  ${f.message}${f.acknowledged ? ` (acknowledged: ${f.acknowledged})` : ""}`);
  say(s, "Take care", { size: 12, bold: true });
  for (const c of p.cautions) say(s, c, { indent: 8 });
  for (const ph of PHASES) {
    const rows = p.rows.filter((r) => r.phase === ph.id);
    if (!rows.length) continue;
    say(s, ph.title, { size: 12, bold: true, gap: 2 });
    say(s, ph.why, { gap: 4 });
    for (const r of rows)
      if (!isLaid(r)) say(s, r.note, { box: true });
      else
        say(
          s,
          `${r.step}. ${[r.colour || r.kind, r.net].join(" ")}: ${place(r.from, r.fromWords)} to ${place(r.to, r.toWords)}, ${r.length_cm} cm, ${r.endA}-${r.endB}`,
          { box: true },
        );
  }
  say(s, "Checks", { size: 12, bold: true });
  for (const i of p.checks) {
    const want = i.low === null ? `at most ${i.high}` : i.high === null ? `over ${i.low}` : `${i.low} to ${i.high}`;
    say(s, `${i.when}: ${i.what}, ${i.from} to ${i.to}: ${want} ${i.unit}`, { box: true });
  }
  say(s, "Parts", { size: 12, bold: true });
  for (const b of p.parts)
    say(s, `${b.quantity} (+${b.spares})  ${b.name} ${b.value}  ${b.refs.join(" ")}${b.buy ? "" : "  (have it)"}`);
  const pages = doc.getPages();
  pages.forEach((page, i) =>
    page.drawText(`${i + 1} / ${pages.length}`, { x: A4[0] - MARGIN - 30, y: 24, size: 8, font: s.text, color: INK }),
  );
  return doc.save();
}
