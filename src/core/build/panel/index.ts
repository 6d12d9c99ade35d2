import type { Circuit } from "../../circuit";
import type { Drawing, Shape } from "../../drawing";
import type { Instance } from "../../circuit/netlist";
import { benchName } from "../names";

type Cutout = NonNullable<Instance["part"]["body"]["panel"]>;
export interface PanelPart {
  ref: string;
  name: string;
  cutout: Cutout;
  /** The middle of the part on the front, from the upper left corner, millimetres. */
  x: number;
  y: number;
  byHand: boolean;
}
export interface Panel {
  w_mm: number;
  h_mm: number;
  d_mm: number;
  parts: PanelPart[];
  /** What does not fit, in sentences. */
  trouble: string[];
}

const EDGE = 6;
const GAP = 6;
/** Wires, nuts and joints behind a part. */
const BEHIND = 8;

/** What is looked at stands above what is pressed and turned. */
const rank = (i: Instance) =>
  /ssd1306|lcd|pir|hc-sr04|ultrasonic/.test(i.part.id) ? 0 : /led-|ldr/.test(i.part.id) ? 1 : 2;

/** Parts without a place of their own: in rows from the upper left, displays first. */
function arrange(w: number, list: { inst: Instance; cutout: Cutout }[], taken: PanelPart[]): PanelPart[] {
  const out: PanelPart[] = [];
  const clear = (x: number, y: number, c: Cutout) =>
    [...taken, ...out].every(
      (p) =>
        Math.abs(p.x - x) >= (p.cutout.room_mm[0] + c.room_mm[0]) / 2 + GAP ||
        Math.abs(p.y - y) >= (p.cutout.room_mm[1] + c.room_mm[1]) / 2 + GAP,
    );
  for (const { inst, cutout } of list) {
    const [rw, rh] = cutout.room_mm;
    let found: { x: number; y: number } | undefined;
    for (let y = EDGE + rh / 2; !found && y < 2000; y += 2)
      for (let x = EDGE + rw / 2; x <= w - EDGE - rw / 2 + 1e-9; x += 2)
        if (clear(x, y, cutout)) {
          found = { x, y };
          break;
        }
    const at = found ?? { x: EDGE + rw / 2, y: EDGE + rh / 2 };
    out.push({ ref: inst.ref, name: benchName(inst), cutout, ...at, byHand: false });
  }
  return out;
}

function troubles(p: Omit<Panel, "trouble">): string[] {
  const out: string[] = [];
  for (const [k, a] of p.parts.entries()) {
    const [w, h] = a.cutout.room_mm;
    if (a.x - w / 2 < 2 || a.x + w / 2 > p.w_mm - 2 || a.y - h / 2 < 2 || a.y + h / 2 > p.h_mm - 2)
      out.push(`${a.name} needs ${w} × ${h} mm and stands over the edge of the front.`);
    const deep = a.cutout.depth_mm + BEHIND;
    if (deep > p.d_mm)
      out.push(
        `${a.name} is ${a.cutout.depth_mm} mm deep, ${deep} mm with its wires: the box has ${p.d_mm} mm inside.`,
      );
    for (const b of p.parts.slice(k + 1))
      if (Math.abs(a.x - b.x) < (w + b.cutout.room_mm[0]) / 2 && Math.abs(a.y - b.y) < (h + b.cutout.room_mm[1]) / 2)
        out.push(`${a.name} and ${b.name} are in each other's way.`);
  }
  return out;
}

/** The front of the box with everything that goes through it; null while the project has no box. */
export function panelOf(c: Circuit): Panel | null {
  const { box } = c.project;
  if (!box) return null;
  const all = [...c.netlist.expanded.instances.values()].flatMap((inst) =>
    inst.part.body.panel && !inst.inserted ? [{ inst, cutout: inst.part.body.panel }] : [],
  );
  const placed = all.flatMap(({ inst, cutout }): PanelPart[] => {
    const at = box.at[inst.ref];
    return at ? [{ ref: inst.ref, name: benchName(inst), cutout, ...at, byHand: true }] : [];
  });
  const rest = all
    .filter(({ inst }) => !box.at[inst.ref])
    .sort((a, b) => rank(a.inst) - rank(b.inst) || b.cutout.room_mm[1] - a.cutout.room_mm[1]);
  const panel = {
    w_mm: box.w_mm,
    h_mm: box.h_mm,
    d_mm: box.d_mm,
    parts: [...placed, ...arrange(box.w_mm, rest, placed)],
  };
  return { ...panel, trouble: troubles(panel) };
}

const inch = (mm: number) => (mm / 25.4).toFixed(3);
/** A size in both measures: "5.1 mm (0.201 in)". */
export const bothUnits = (mm: number): string => `${Number(mm.toFixed(1))} mm (${inch(mm)} in)`;

/** The drill template in millimetres, seen from outside: outline, centre marks, holes with their sizes. */
export function panelDrawing(p: Panel): Drawing {
  const shapes: Shape[] = [{ kind: "rect", x: 0, y: 0, w: p.w_mm, h: p.h_mm, stroke: "ink", width: 0.3 }];
  const cross = (x: number, y: number): Shape => ({
    kind: "path",
    d: `M${x - 4} ${y}H${x + 4}M${x} ${y - 4}V${y + 4}`,
    stroke: "ink",
    width: 0.2,
  });
  for (const part of p.parts) {
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
    lines.forEach((text, k) =>
      shapes.push({
        kind: "text",
        x: part.x,
        y: part.y + h / 2 + 2.6 + 2.4 * k,
        text,
        size: k ? 1.9 : 2.3,
        anchor: "middle",
        bold: k === 0,
      }),
    );
  }
  shapes.push({
    kind: "text",
    x: 0,
    y: -2,
    text: `front seen from outside, ${bothUnits(p.w_mm)} × ${bothUnits(p.h_mm)}`,
    size: 2.6,
  });
  return { x: -4, y: -7, width: p.w_mm + 8, height: p.h_mm + 14, unit_mm: 1, shapes };
}
