import { degrees, rgb, type PDFFont } from "pdf-lib";
import { patternOf, type Drawing, type Paint, type Shape } from "../../drawing";
import { heading, MARGIN, POINTS_PER_MM, newPage, printable, room, turnPaper, widthOf, type Sheet } from "./sheet";

const GREY: Record<Exclude<Paint, object>, number> = { ink: 0.1, soft: 0.35, line: 0.7, paper: 1, wash: 0.93 };
/** Wires are ink on paper: their pattern and name tell them apart. */
const paint = (p: Paint) => {
  const g = typeof p === "string" ? GREY[p] : GREY.ink;
  return rgb(g, g, g);
};

function drawText(s: Sheet, t: Extract<Shape, { kind: "text" }>, x: number, y: number, scale: number): void {
  const font: PDFFont = t.bold ? s.bold : s.text;
  const size = t.size * scale;
  const text = printable(s, t.text);
  const width = widthOf(font, text, size);
  const back = t.anchor === "middle" ? width / 2 : t.anchor === "end" ? width : 0;
  const turn = (-(t.turn ?? 0) * Math.PI) / 180;
  s.page.drawText(text, {
    x: x - back * Math.cos(turn),
    y: y - back * Math.sin(turn),
    size,
    font,
    rotate: degrees(-(t.turn ?? 0)),
    color: paint(t.fill ?? "ink"),
  });
}

/** Draws at a place of the page, `scale` points a unit. */
export function draw(s: Sheet, d: Drawing, left: number, top: number, scale: number): void {
  const at = (x: number, y: number) => [left + (x - d.x) * scale, top - (y - d.y) * scale] as const;
  for (const shape of d.shapes) {
    const wire =
      typeof shape.stroke === "object" ? patternOf(shape.stroke.wire).map((n) => n * (shape.width ?? 1)) : [];
    const dash = shape.dash ?? wire;
    const style = {
      ...(shape.fill && { color: paint(shape.fill) }),
      ...(shape.opacity !== undefined && { opacity: shape.opacity, borderOpacity: shape.opacity }),
      ...(shape.stroke && { borderColor: paint(shape.stroke) }),
    };
    const border = (k: number) => ({
      borderWidth: shape.stroke ? (shape.width ?? 1) * k : 0,
      ...(dash.length > 0 && { borderDashArray: dash.map((n) => n * k) }),
    });
    if (shape.kind === "text") {
      const [x, y] = at(shape.x, shape.y);
      drawText(s, shape, x, y, scale);
    } else if (shape.kind === "rect") {
      const [x, y] = at(shape.x, shape.y + shape.h);
      s.page.drawRectangle({ x, y, width: shape.w * scale, height: shape.h * scale, ...style, ...border(scale) });
    } else if (shape.kind === "circle") {
      const [x, y] = at(shape.x, shape.y);
      s.page.drawCircle({ x, y, size: shape.r * scale, ...style, ...border(scale) });
    } else if (shape.d) {
      const [x, y] = at(0, 0);
      // Line widths and dashes of a path are scaled along with it.
      s.page.drawSvgPath(shape.d, { x, y, scale, ...style, ...border(1) });
    }
  }
}

/** Draws as large as the room allows: on this page when half of it is left, else on a page of its own. */
export function drawFitting(s: Sheet, d: Drawing): void {
  const width = s.size[0] - 2 * MARGIN;
  const most = (d.unit_mm ?? 25.4 / 72) * POINTS_PER_MM * 1.4;
  const scaleFor = (height: number) => Math.min(width / d.width, height / d.height, most);
  const whole = scaleFor(s.size[1] - 2 * MARGIN);
  if (scaleFor(room(s)) < whole * 0.75) newPage(s);
  const scale = scaleFor(room(s));
  draw(s, d, MARGIN + (width - d.width * scale) / 2, s.y, scale);
  s.y -= d.height * scale + 8;
}

/** The smallest type that is read on paper without a glass, points; how much two sheets of a drawing share, drawing units. */
const LEAST_PT = 7;
const SHARED = 60;
/** Room for the heading, and the largest scale of a small drawing, points. */
const HEAD = 48;
const MOST_SCALE = 1.2;

/**
 * Draws a wide drawing across lying pages, so large that its smallest text can be read: on one page where that is enough, else on
 * several that share a strip at their edges. `title` stands on each; `least`: height of the smallest text, drawing units.
 */
export function drawAcross(s: Sheet, d: Drawing, title: string, why: string, least: number): void {
  turnPaper(s);
  const [paperW, paperH] = s.size;
  const [w, h] = [paperW - 2 * MARGIN, paperH - 2 * MARGIN - HEAD];
  const fit = Math.min(w / d.width, h / d.height, MOST_SCALE);
  const scale = Math.max(fit, LEAST_PT / least);
  const [across, down] = [w / scale, h / scale];
  const count = (whole: number, part: number) =>
    whole <= part + 1e-6 ? 1 : Math.ceil((whole - SHARED) / (part - SHARED));
  const [columns, rows] = [count(d.width, across), count(d.height, down)];
  // Even steps: no sheet with a sliver on it. What fits stands in the middle.
  const start = (whole: number, part: number, n: number, i: number) =>
    n > 1 ? (i * (whole - part)) / (n - 1) : (whole - part) / 2;
  const white = (x: number, y: number, width: number, height: number) =>
    s.page.drawRectangle({ x, y, width, height, color: rgb(1, 1, 1) });
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      newPage(s);
      const top = paperH - MARGIN - HEAD;
      const y = rows > 1 ? start(d.height, down, rows, j) : 0;
      draw(s, d, MARGIN - start(d.width, across, columns, i) * scale, top + y * scale, scale);
      // What belongs to the next sheet does not run under heading and foot.
      if (rows > 1) white(0, top + 4, paperW, MARGIN + HEAD);
      white(0, 0, paperW, MARGIN - 4);
      s.y = paperH - MARGIN;
      heading(s, title + (rows * columns > 1 ? `, sheet ${j * columns + i + 1} of ${rows * columns}` : ""), why);
    }
  turnPaper(s);
}

/** Draws in true size, in the middle; false where the paper is too small for it, and then nothing is drawn. */
export function drawTrue(s: Sheet, d: Drawing): boolean {
  const scale = (d.unit_mm ?? 1) * POINTS_PER_MM;
  const [w, h] = [d.width * scale, d.height * scale];
  if (w > s.size[0] - 20 || h > room(s) + MARGIN - 30) return false;
  draw(s, d, (s.size[0] - w) / 2, s.y, scale);
  s.y -= h + 8;
  return true;
}

/** Fifty millimetres to hold a ruler against, so that a printer that shrinks pages is found out. */
export const scaleBar = (): Drawing => ({
  x: -2,
  y: -4,
  width: 90,
  height: 10,
  unit_mm: 1,
  shapes: [
    { kind: "path", d: "M0 0H50M0 -2V2M50 -2V2M10 -1V1M20 -1V1M30 -1V1M40 -1V1", stroke: "ink", width: 0.3 },
    { kind: "text", x: 52, y: 1, text: "50 mm: measure it after printing", size: 2.6 },
  ],
});
