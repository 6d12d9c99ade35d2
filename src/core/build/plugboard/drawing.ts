import { nameBox, NameRoom, nameWidth, placesBeside, placesInside, type Drawing, type Shape } from "../../drawing";
import { PITCH_MM } from "../breadboard/sizes";
import type { PlugBoard } from "./types";

type Point = { x: number; y: number };
export type Side = "parts" | "back";

/** Room for the numbers around the board, in holes. */
const RIM = 2;
const NAME = 0.85;
const LEAST = 0.6;
const PIN = 0.56;
const areaOf = (r: PlugBoard["covers"][number]) => (r.x2 - r.x1) * (r.y2 - r.y1);
const square = (x: number, y: number, s: number) => `M${x - s / 2} ${y - s / 2}h${s}v${s}h${-s}z`;
const text = (x: number, y: number, t: string, size: number, rest: object = {}): Shape => ({
  kind: "text",
  x,
  y,
  text: t,
  size,
  ...rest,
});

/**
 * The board true to scale, one unit a hole (2.54 mm): from the side with the parts, or from the back, where everything is mirrored
 * as the person sees it after turning it over like a page. Wires lie on the back.
 */
export function plugDrawing(b: PlugBoard, side: Side): Drawing {
  const back = side === "back";
  const x = (column: number) => (back ? b.columns + 1 - column : column);
  const holes: string[] = [];
  for (let r = 1; r <= b.rows; r++) for (let k = 1; k <= b.columns; k++) holes.push(square(k, r, 0.28));
  const shapes: Shape[] = [
    { kind: "rect", x: 0.2, y: 0.2, w: b.columns + 0.6, h: b.rows + 0.6, stroke: "ink", width: 0.1, fill: "paper" },
    { kind: "path", d: holes.join(""), fill: "line" },
  ];
  for (let k = 1; k <= b.columns; k++)
    if (k === 1 || k % 5 === 0) shapes.push(text(x(k), -0.2, String(k), 0.75, { anchor: "middle", fill: "soft" }));
  for (let r = 1; r <= b.rows; r++)
    if (r === 1 || r % 5 === 0) shapes.push(text(-0.2, r + 0.27, String(r), 0.75, { anchor: "end", fill: "soft" }));
  for (const c of b.covers) {
    const [x1, x2] = [x(c.x1), x(c.x2)].sort((p, q) => p - q) as [number, number];
    shapes.push({
      kind: "rect",
      x: x1,
      y: c.y1,
      w: x2 - x1,
      h: c.y2 - c.y1,
      stroke: "soft",
      width: 0.08,
      dash: [0.5, 0.3],
    });
    shapes.push(text((x1 + x2) / 2, (c.y1 + c.y2) / 2, b.host, 1, { anchor: "middle", bold: true, fill: "soft" }));
  }
  for (const c of b.cuts) {
    const [x1, x2] = [x(c.x1), x(c.x2)].sort((p, q) => p - q) as [number, number];
    const [y1, y2] = [Math.max(0.2, c.y1), Math.min(b.rows + 0.8, c.y2)];
    shapes.push(
      { kind: "rect", x: x1, y: y1, w: x2 - x1, h: y2 - y1, fill: "paper", stroke: "ink", width: 0.1 },
      text((x1 + x2) / 2 + 0.25, (y1 + y2) / 2, "cut away", 0.75, { anchor: "middle", turn: -90 }),
    );
  }
  for (const p of b.parts) {
    const [x1, x2] = [x(p.body.x1), x(p.body.x2)].sort((m, n) => m - n) as [number, number];
    shapes.push({
      kind: "rect",
      x: x1,
      y: p.body.y1,
      w: x2 - x1,
      h: p.body.y2 - p.body.y1,
      stroke: back ? "line" : "ink",
      width: 0.1,
      ...(p.leads && { dash: [0.35, 0.25] }),
      fill: back ? undefined : "wash",
      opacity: back ? undefined : 0.7,
      of: p.ref,
    });
  }
  const lines: [Point, Point][] = [];
  const wireShapes = b.wires.flatMap((w): Shape[] => {
    const from = w.through?.end === "a" ? w.through.at : w.a;
    const to = w.through?.end === "b" ? w.through.at : w.b;
    lines.push([
      { x: x(from.column), y: from.row },
      { x: x(to.column), y: to.row },
    ]);
    const d = `M${x(from.column)} ${from.row}L${x(to.column)} ${to.row}`;
    const colour = { wire: w.colour };
    return [
      { kind: "path", d, stroke: "paper", width: 0.42 },
      { kind: "path", d, stroke: colour, width: w.heavy ? 0.34 : 0.2, of: w.net, ...(back ? {} : { opacity: 0.55 }) },
      ...[from, to].map((p): Shape => ({ kind: "circle", x: x(p.column), y: p.row, r: 0.22, fill: colour })),
    ];
  });
  shapes.push(...wireShapes);
  const dots = [...b.header.map((h) => h.at), ...b.parts.flatMap((p) => p.pins.map((q) => q.at))];
  shapes.push({ kind: "path", d: dots.map((a) => square(x(a.column), a.row, 0.42)).join(""), fill: "ink" });
  const labels: ReturnType<typeof nameBox>[] = [];
  for (const h of b.header)
    if (h.pin && h.wired) {
      const name = h.pin.replace(/\.\d+$/, "");
      const left = b.header.some((o) => o.at.row === h.at.row && o.at.column > h.at.column);
      // Towards the middle of the header, where nothing else is written.
      const inward = (left ? 1 : -1) * (back ? -1 : 1) * (b.seating === "pins" ? -1 : 1);
      const at = x(h.at.column) + 0.4 * inward;
      const wide = nameWidth(name, PIN);
      labels.push({
        x1: Math.min(at, at + inward * wide),
        x2: Math.max(at, at + inward * wide),
        y1: h.at.row - 0.3,
        y2: h.at.row + 0.3,
      });
      shapes.push(text(at, h.at.row + 0.2, name, PIN, { anchor: inward > 0 ? "start" : "end", bold: true }));
    }
  const room = new NameRoom(
    dots.map((a) => ({ x1: x(a.column) - 0.3, x2: x(a.column) + 0.3, y1: a.row - 0.3, y2: a.row + 0.3 })),
    lines,
  );
  for (const box of labels) room.keep(box);
  for (const p of [...b.parts].sort((m, n) => areaOf(m.body) - areaOf(n.body))) {
    const [x1, x2] = [x(p.body.x1), x(p.body.x2)].sort((m, n) => m - n) as [number, number];
    const body = { x1, x2, y1: p.body.y1, y2: p.body.y2 };
    const at = room.place(p.ref, [...placesInside(p.ref, body, NAME, LEAST), ...placesBeside(p.ref, body, LEAST)]);
    const plate = nameBox(p.ref, at);
    shapes.push(
      {
        kind: "rect",
        x: plate.x1,
        y: plate.y1,
        w: plate.x2 - plate.x1,
        h: plate.y2 - plate.y1,
        fill: "paper",
        opacity: 0.75,
      },
      at.standing
        ? text(at.x + at.size * 0.33, at.y, p.ref, at.size, { anchor: "middle", bold: true, turn: -90 })
        : text(at.x, at.y + at.size * 0.33, p.ref, at.size, { anchor: "middle", bold: true }),
    );
  }
  const left = Math.min(0, ...b.covers.map((c) => Math.min(x(c.x1), x(c.x2))));
  const top = Math.min(0, ...b.covers.map((c) => c.y1));
  const bottom = Math.max(b.rows + 1, ...b.covers.map((c) => c.y2));
  const right = Math.max(b.columns + 1, ...b.covers.map((c) => Math.max(x(c.x1), x(c.x2))));
  return {
    x: left - RIM,
    y: top - RIM,
    width: right - left + 2 * RIM,
    height: bottom - top + 2 * RIM,
    unit_mm: PITCH_MM,
    shapes,
  };
}
