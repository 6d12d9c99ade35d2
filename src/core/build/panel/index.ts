import type { Circuit } from "../../circuit";
import { nameWidth, type Drawing, type Shape } from "../../drawing";
import type { Instance } from "../../circuit/netlist";
import { WALLS, type Wall } from "../../project";
import { benchName } from "../names";
import { wallSize } from "./wall";

export { wallSize };

type Cutout = NonNullable<Instance["part"]["body"]["panel"]>;
export interface PanelPart {
  ref: string;
  name: string;
  cutout: Cutout;
  wall: Wall;
  /** The middle of the part on its wall, from the upper left corner seen from outside, millimetres. */
  x: number;
  y: number;
  byHand: boolean;
}
export interface Panel {
  w_mm: number;
  h_mm: number;
  d_mm: number;
  corner_mm: number;
  parts: PanelPart[];
  /** What does not fit, in sentences. */
  trouble: string[];
}

const EDGE = 6;
const GAP = 6;
/** Wires, nuts and joints behind a part. */
const BEHIND = 8;
/** What must stay of a wall beside a part. */
const RIM = 2;

/** The USB lead has no part in the plan: it goes by this name. */
export const USB_LEAD = "USB lead";
const USB_CUTOUT: Cutout = {
  holes: [{ x: 0, y: 0, d_mm: 22.5 }],
  room_mm: [28, 28],
  depth_mm: 40,
  says: "Short USB lead with a round socket and nut, for 22 mm holes. Usual size of this kind; copies differ: measure yours before drilling.",
};

/** What is looked at stands above what is pressed and turned. */
const rank = (ref: string, part: string) =>
  ref === USB_LEAD
    ? 3
    : /ssd1306|lcd|pir|hc-sr04|ultrasonic|st7|ili9341|max7219|digit|matrix/.test(part)
      ? 0
      : /led-|ldr/.test(part)
        ? 1
        : 2;

/** Plugs go to the back, out of the way of hands, or to a side where the box is too shallow; the rest is looked at and pressed. */
function usualWall(box: Size, ref: string, part: string, cutout: Cutout): Wall {
  if (ref !== USB_LEAD && !part.startsWith("connector/")) return "front";
  return cutout.depth_mm + BEHIND > box.d_mm && cutout.depth_mm + BEHIND <= box.w_mm ? "right" : "back";
}

type Size = Pick<Panel, "w_mm" | "h_mm" | "d_mm">;
type Placed = Pick<PanelPart, "wall" | "x" | "y" | "cutout">;
type Span = [number, number];
/** The room that a part takes inside: across, down, and from the front to the back. */
function volume(b: Size, p: Placed): [Span, Span, Span] {
  const [rw, rh] = p.cutout.room_mm;
  const d = p.cutout.depth_mm;
  const across: Span = [p.x - rw / 2, p.x + rw / 2];
  const along: Span = [p.y - rh / 2, p.y + rh / 2];
  const from = (whole: number, [lo, hi]: Span): Span => [whole - hi, whole - lo];
  const places: Record<Wall, [Span, Span, Span]> = {
    front: [across, along, [0, d]],
    // Seen from behind, left and right change places.
    back: [from(b.w_mm, across), along, [b.d_mm - d, b.d_mm]],
    left: [[0, d], along, from(b.d_mm, across)],
    right: [[b.w_mm - d, b.w_mm], along, across],
    top: [across, [0, d], from(b.d_mm, along)],
    bottom: [across, [b.h_mm - d, b.h_mm], along],
  };
  return places[p.wall];
}

/** Whether two parts behind different walls want the same room inside. */
function meetInside(b: Size, p: Placed, q: Placed): boolean {
  const [vp, vq] = [volume(b, p), volume(b, q)];
  return vp.every(([lo, hi], i) => lo < vq[i]![1] && vq[i]![0] < hi);
}

/** Whether a rounded wall has nothing where a part needs it: a corner of its room lies outside the round. */
function inCorner(p: Pick<PanelPart, "x" | "y" | "cutout">, w: number, h: number, r: number): boolean {
  const inner = r - RIM;
  if (inner <= 0) return false;
  const [rw, rh] = p.cutout.room_mm;
  return [p.x - rw / 2, p.x + rw / 2].some((x) =>
    [p.y - rh / 2, p.y + rh / 2].some((y) => {
      const [dx, dy] = [Math.max(r - x, x - (w - r)), Math.max(r - y, y - (h - r))];
      return dx > 0 && dy > 0 && Math.hypot(dx, dy) > inner;
    }),
  );
}

/** Parts without a place of their own: in rows from the upper left of their wall. */
function arrange(
  box: Omit<Panel, "parts" | "trouble">,
  list: Omit<PanelPart, "x" | "y" | "byHand">[],
  taken: PanelPart[],
): PanelPart[] {
  const out: PanelPart[] = [];
  const clear = (x: number, y: number, p: (typeof list)[number]) =>
    [...taken, ...out].every((q) =>
      q.wall === p.wall
        ? Math.abs(q.x - x) >= (q.cutout.room_mm[0] + p.cutout.room_mm[0]) / 2 + GAP ||
          Math.abs(q.y - y) >= (q.cutout.room_mm[1] + p.cutout.room_mm[1]) / 2 + GAP
        : !meetInside(box, { ...p, x, y }, q),
    );
  for (const p of list) {
    const [rw, rh] = p.cutout.room_mm;
    const { w, h } = wallSize(box, p.wall);
    let found: { x: number; y: number } | undefined;
    for (let y = EDGE + rh / 2; !found && y < 2000; y += 2)
      for (let x = EDGE + rw / 2; x <= w - EDGE - rw / 2 + 1e-9; x += 2)
        if (clear(x, y, p) && !inCorner({ ...p, x, y }, w, h, box.corner_mm)) {
          found = { x, y };
          break;
        }
    const at = found ?? { x: EDGE + rw / 2, y: EDGE + rh / 2 };
    out.push({ ...p, ...at, byHand: false });
  }
  return out;
}

function troubles(p: Omit<Panel, "trouble">): string[] {
  const out: string[] = [];
  for (const [k, a] of p.parts.entries()) {
    const [w, h] = a.cutout.room_mm;
    const wall = wallSize(p, a.wall);
    if (a.x - w / 2 < RIM || a.x + w / 2 > wall.w - RIM || a.y - h / 2 < RIM || a.y + h / 2 > wall.h - RIM)
      out.push(`${a.name} needs ${w} × ${h} mm and stands over the edge of the ${a.wall}.`);
    else if (inCorner(a, wall.w, wall.h, p.corner_mm))
      out.push(
        `${a.name} stands in a rounded corner of the ${a.wall}: ${p.corner_mm} mm of radius leave nothing to hold it.`,
      );
    const deep = a.cutout.depth_mm + BEHIND;
    if (deep > wall.deep)
      out.push(
        `${a.name} is ${a.cutout.depth_mm} mm deep, ${deep} mm with its wires: the box has ${wall.deep} mm inside.`,
      );
    for (const b of p.parts.slice(k + 1)) {
      if (a.wall === b.wall) {
        if (Math.abs(a.x - b.x) < (w + b.cutout.room_mm[0]) / 2 && Math.abs(a.y - b.y) < (h + b.cutout.room_mm[1]) / 2)
          out.push(`${a.name} and ${b.name} are in each other's way.`);
        continue;
      }
      if (meetInside(p, a, b))
        out.push(`${a.name} behind the ${a.wall} and ${b.name} behind the ${b.wall} meet inside the box.`);
    }
  }
  return out;
}

/** The walls of the box with everything that goes through them; null while the project has no box. */
export function panelOf(c: Circuit): Panel | null {
  const { box } = c.project;
  if (!box) return null;
  const all = [...c.netlist.expanded.instances.values()].flatMap((inst) =>
    inst.part.body.panel && !inst.inserted
      ? [{ ref: inst.ref, name: benchName(inst), part: inst.part.id, cutout: inst.part.body.panel }]
      : [],
  );
  if (box.usbLead) all.push({ ref: USB_LEAD, name: USB_LEAD, part: "", cutout: USB_CUTOUT });
  const placed = all.flatMap(({ part, ...p }): PanelPart[] => {
    const at = box.at[p.ref];
    return at ? [{ ...p, x: at.x, y: at.y, wall: at.wall ?? usualWall(box, p.ref, part, p.cutout), byHand: true }] : [];
  });
  const rest = all
    .filter((p) => !box.at[p.ref])
    .sort((a, b) => rank(a.ref, a.part) - rank(b.ref, b.part) || b.cutout.room_mm[1] - a.cutout.room_mm[1])
    .map(({ part, ...p }) => ({ ...p, wall: usualWall(box, p.ref, part, p.cutout) }));
  const size = { w_mm: box.w_mm, h_mm: box.h_mm, d_mm: box.d_mm, corner_mm: box.corner_mm ?? 0 };
  const panel = { ...size, parts: [...placed, ...arrange(size, rest, placed)] };
  return { ...panel, trouble: troubles(panel) };
}

/** The front, and every other wall that something goes through. */
export const wallsOf = (p: Panel): Wall[] => WALLS.filter((w) => w === "front" || p.parts.some((x) => x.wall === w));

const inch = (mm: number) => (mm / 25.4).toFixed(3);
/** A size in both measures: "5.1 mm (0.201 in)". */
export const bothUnits = (mm: number): string => `${Number(mm.toFixed(1))} mm (${inch(mm)} in)`;

/** An outline with rounded corners. */
function rounded(w: number, h: number, radius: number): string {
  const r = Math.min(radius, w / 2, h / 2);
  if (r <= 0) return `M0 0H${w}V${h}H0Z`;
  return `M${r} 0H${w - r}Q${w} 0 ${w} ${r}V${h - r}Q${w} ${h} ${w - r} ${h}H${r}Q0 ${h} 0 ${h - r}V${r}Q0 0 ${r} 0Z`;
}

/** Type on a template, millimetres: large enough to be read on the screen as well. */
const NAME_MM = 3.2;
const SIZE_MM = 2.7;
const LINE_MM = 3.6;
interface Box {
  x1: number;
  x2: number;
  y1: number;
  y2: number;
}
const around = (x: number, y: number, [w, h]: readonly [number, number]): Box => ({
  x1: x - w / 2,
  x2: x + w / 2,
  y1: y - h / 2,
  y2: y + h / 2,
});
const shared = (a: Box, b: Box) =>
  Math.max(0, Math.min(a.x2, b.x2) - Math.max(a.x1, b.x1)) * Math.max(0, Math.min(a.y2, b.y2) - Math.max(a.y1, b.y1));

/** Where the words of a part stand: below it, above, or beside, where they cover least of others and stay on the wall. */
function labelAt(
  part: PanelPart,
  lines: string[],
  rooms: readonly Box[],
  labels: readonly Box[],
  wall: { w: number; h: number },
): Box {
  const size: [number, number] = [
    Math.max(...lines.map((t, k) => nameWidth(t, k ? SIZE_MM : NAME_MM))),
    lines.length * LINE_MM,
  ];
  const room = around(part.x, part.y, part.cutout.room_mm);
  const [dx, dy] = [(room.x2 - room.x1 + size[0]) / 2 + 1, (room.y2 - room.y1 + size[1]) / 2 + 0.5];
  const places = [
    [0, dy],
    [dx, 0],
    [0, -dy],
    [-dx, 0],
    [dx, dy],
    [-dx, dy],
  ].map(([x, y]) => around(part.x + x!, part.y + y!, size));
  const outside = (b: Box) =>
    Math.max(0, -b.x1) + Math.max(0, b.x2 - wall.w) + Math.max(0, -b.y1) + Math.max(0, b.y2 - wall.h);
  const cost = (b: Box) => outside(b) * size[1] + [...rooms, ...labels].reduce((sum, r) => sum + shared(b, r), 0);
  return places.reduce((best, b) => (cost(b) < cost(best) - 1e-9 ? b : best));
}

/** The drill template of a wall in millimetres, seen from outside: outline, centre marks, holes with their sizes. */
export function panelDrawing(p: Panel, wall: Wall = "front"): Drawing {
  const { w: wide, h: high } = wallSize(p, wall);
  const shapes: Shape[] = [{ kind: "path", d: rounded(wide, high, p.corner_mm), stroke: "ink", width: 0.3 }];
  const cross = (x: number, y: number): Shape => ({
    kind: "path",
    d: `M${x - 4} ${y}H${x + 4}M${x} ${y - 4}V${y + 4}`,
    stroke: "ink",
    width: 0.2,
  });
  const mine = p.parts.filter((x) => x.wall === wall);
  const rooms = mine.map((x) => around(x.x, x.y, x.cutout.room_mm));
  const labels: Box[] = [];
  for (const part of mine) {
    const [w, h] = part.cutout.room_mm;
    shapes.push({
      kind: "rect",
      x: part.x - w / 2,
      y: part.y - h / 2,
      w,
      h,
      stroke: "line",
      width: 0.2,
      dash: [2, 1.5],
      of: part.ref,
    });
    const sizes = new Set<string>();
    for (const hole of part.cutout.holes) {
      const [x, y] = [part.x + hole.x, part.y + hole.y];
      shapes.push(cross(x, y));
      if ("d_mm" in hole) {
        shapes.push({ kind: "circle", x, y, r: hole.d_mm / 2, stroke: "ink", width: 0.3 });
        sizes.add(bothUnits(hole.d_mm));
      } else {
        shapes.push({
          kind: "rect",
          x: x - hole.w_mm / 2,
          y: y - hole.h_mm / 2,
          w: hole.w_mm,
          h: hole.h_mm,
          stroke: "ink",
          width: 0.3,
        });
        sizes.add(`${bothUnits(hole.w_mm)} × ${bothUnits(hole.h_mm)}`);
      }
    }
    const lines = [part.name, ...sizes];
    const at = labelAt(part, lines, rooms, labels, { w: wide, h: high });
    labels.push(at);
    lines.forEach((text, k) =>
      shapes.push({
        kind: "text",
        x: (at.x1 + at.x2) / 2,
        y: at.y1 + LINE_MM * (k + 0.8),
        text,
        size: k ? SIZE_MM : NAME_MM,
        anchor: "middle",
        bold: k === 0,
      }),
    );
  }
  shapes.push({
    kind: "text",
    x: 0,
    y: -2,
    text: `${wall} seen from outside, ${bothUnits(wide)} × ${bothUnits(high)}`,
    size: SIZE_MM,
  });
  return { x: -4, y: -7, width: wide + 8, height: high + 14, unit_mm: 1, shapes };
}
