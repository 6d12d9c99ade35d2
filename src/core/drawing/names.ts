/** A place for a name: its middle, and how it is turned. */
export interface NamePlace {
  x: number;
  y: number;
  standing: boolean;
  size: number;
}
export interface Box {
  x1: number;
  x2: number;
  y1: number;
  y2: number;
}
type Point = { x: number; y: number };

/** Mean width of a bold letter, for one unit of size. */
const LETTER_W = 0.62;
const LINE_H = 1.05;

export const nameWidth = (text: string, size: number): number => text.length * size * LETTER_W;

export function nameBox(text: string, at: NamePlace): Box {
  const [long, high] = [nameWidth(text, at.size), at.size * LINE_H];
  const [w, h] = at.standing ? [high, long] : [long, high];
  return { x1: at.x - w / 2, x2: at.x + w / 2, y1: at.y - h / 2, y2: at.y + h / 2 };
}

const overlap = (a: Box, b: Box) =>
  Math.max(0, Math.min(a.x2, b.x2) - Math.max(a.x1, b.x1)) * Math.max(0, Math.min(a.y2, b.y2) - Math.max(a.y1, b.y1));

/** How much of a straight line lies in a box (Liang and Barsky's clipping). */
function within(p: Point, q: Point, b: Box): number {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  let [from, to] = [0, 1];
  for (const [d, room] of [
    [-dx, p.x - b.x1],
    [dx, b.x2 - p.x],
    [-dy, p.y - b.y1],
    [dy, b.y2 - p.y],
  ] as const) {
    if (d === 0) {
      if (room < 0) return 0;
    } else if (d < 0) from = Math.max(from, room / d);
    else to = Math.min(to, room / d);
  }
  return to > from ? (to - from) * Math.hypot(dx, dy) : 0;
}

/** What a name on another costs against one on a pin, and one that a wire runs under. */
const ON_NAME = 60;
const ON_PIN = 20;
const ON_OTHER = 12;
const ON_WIRE = 1.5;
/** Earlier places are better among equals. */
const LATER = 0.02;

/** What names keep clear of: pins first, then each other, and wires as far as there is room. Lengths in the drawing's unit. */
export class NameRoom {
  private readonly names: Box[] = [];
  constructor(
    private readonly pins: readonly Box[],
    private readonly lines: readonly (readonly [Point, Point])[],
  ) {}

  /** The best of these places for a name, which is then kept; off `others`, too. The first one wins among equals. */
  place(text: string, places: readonly NamePlace[], others: readonly Box[] = []): NamePlace {
    let best = places[0]!;
    let least = Infinity;
    places.forEach((at, i) => {
      const box = nameBox(text, at);
      let cost = i * LATER;
      for (const n of this.names) cost += overlap(box, n) * ON_NAME;
      for (const o of others) cost += overlap(box, o) * ON_OTHER;
      for (const p of this.pins) cost += overlap(box, p) * ON_PIN;
      for (const [p, q] of this.lines) cost += within(p, q, box) * ON_WIRE;
      if (cost < least) [least, best] = [cost, at];
    });
    this.names.push(nameBox(text, best));
    return best;
  }
  /** Something that no name may cover: a text with a place of its own. */
  keep(box: Box): void {
    this.names.push(box);
  }
}

/** Places for a name inside an outline, the middle first, then around it in sizes that fit; standing ones where it is narrow. */
export function placesInside(text: string, b: Box, size: number, least: number): NamePlace[] {
  const out: NamePlace[] = [];
  for (const s of size > least ? [size, (size + least) / 2, least] : [size])
    for (const standing of [false, true]) {
      const [w, h] = [b.x2 - b.x1, b.y2 - b.y1];
      const [long, high] = [nameWidth(text, s), s * LINE_H];
      const [needW, needH] = standing ? [high, long] : [long, high];
      if (needW > w || needH > h) continue;
      for (const fy of [0.5, 0.25, 0.75, 0, 1])
        for (const fx of [0.5, 0.25, 0.75, 0, 1])
          out.push({
            x: b.x1 + needW / 2 + fx * (w - needW),
            y: b.y1 + needH / 2 + fy * (h - needH),
            standing,
            size: s,
          });
    }
  return out;
}

/** Places for a name right beside an outline: right, left, above, below. */
export function placesBeside(text: string, b: Box, size: number, gap = 0.15): NamePlace[] {
  const [w, h] = [nameWidth(text, size), size * LINE_H];
  const [cx, cy] = [(b.x1 + b.x2) / 2, (b.y1 + b.y2) / 2];
  return [
    { x: b.x2 + gap + w / 2, y: cy, standing: false, size },
    { x: b.x1 - gap - w / 2, y: cy, standing: false, size },
    { x: cx, y: b.y1 - gap - h / 2, standing: false, size },
    { x: cx, y: b.y2 + gap + h / 2, standing: false, size },
    { x: b.x2 + gap + w / 2, y: b.y1 + h / 2, standing: false, size },
    { x: b.x2 + gap + w / 2, y: b.y2 - h / 2, standing: false, size },
    { x: b.x1 - gap - w / 2, y: b.y1 + h / 2, standing: false, size },
    { x: b.x1 - gap - w / 2, y: b.y2 - h / 2, standing: false, size },
  ];
}
