import { count } from "../../quantity/count";
import { WALLS, type Wall } from "../../project/choices";
import type { Panel } from ".";

/** One hole in a wall, in the order of drilling: small ones first. Millimetres from the upper left corner, seen from outside. */
export interface DrillRow {
  ref: string;
  part: string;
  wall: Wall;
  shape: "round" | "window";
  x_mm: number;
  y_mm: number;
  /** Diameter, or width and height. */
  mm: [number] | [number, number];
  how: string;
}

/** Larger round holes tear thin plastic when they are drilled at once. */
const STEP_FROM_MM = 10;
const round = (v: number) => Math.round(v * 10) / 10;

function howTo(mm: DrillRow["mm"]): string {
  const [first, second] = mm;
  if (second !== undefined)
    return `punch and drill the corners inside the line, saw between them, file to ${round(first)} × ${round(second)} mm`;
  return first > STEP_FROM_MM
    ? `punch, 3 mm first, then a step drill up to ${round(first)} mm`
    : `punch, 3 mm first, then ${round(first)} mm`;
}

/** Every hole of the box with its place, size and how it is made, wall by wall: round ones from small to large, then windows. */
export function drillList(p: Panel): DrillRow[] {
  const rows = p.parts.flatMap((part) =>
    part.cutout.holes.map((h): DrillRow => {
      const mm: DrillRow["mm"] = "d_mm" in h ? [h.d_mm] : [h.w_mm, h.h_mm];
      return {
        ref: part.ref,
        part: part.name,
        wall: part.wall,
        shape: mm.length === 1 ? "round" : "window",
        x_mm: round(part.x + h.x),
        y_mm: round(part.y + h.y),
        mm,
        how: howTo(mm),
      };
    }),
  );
  return rows.sort(
    (a, b) =>
      WALLS.indexOf(a.wall) - WALLS.indexOf(b.wall) ||
      Number(a.shape === "window") - Number(b.shape === "window") ||
      a.mm[0] - b.mm[0] ||
      a.x_mm - b.x_mm,
  );
}

export interface DrillTool {
  name: string;
  why: string;
}

/** What it takes to make these holes; nothing for a box without any. */
export function drillTools(rows: readonly DrillRow[]): DrillTool[] {
  if (!rows.length) return [];
  const bits = [
    ...new Set(rows.flatMap((r) => (r.shape === "round" && r.mm[0] <= STEP_FROM_MM ? [round(r.mm[0])] : []))),
  ];
  const large = rows.flatMap((r) => (r.shape === "round" && r.mm[0] > STEP_FROM_MM ? [r.mm[0]] : []));
  const windows = rows.filter((r) => r.shape === "window").length;
  const sizes = [...new Set([3, ...bits])].sort((a, b) => a - b).map((d) => `${d} mm`);
  return [
    {
      name: "Centre punch, masking tape",
      why: `${count(rows.length, "hole")} in the box, marked from the template`,
    },
    { name: `Drill with bits of ${sizes.join(", ")}`, why: "3 mm first, then to size; the box is clamped, goggles on" },
    ...(large.length
      ? [
          {
            name: `Step drill up to ${round(Math.max(...large))} mm`,
            why: "large holes in thin walls tear with a plain bit",
          },
        ]
      : []),
    ...(windows
      ? [{ name: "Fretsaw and flat file", why: `${windows === 1 ? "a window" : `${windows} windows`} in the box` }]
      : []),
  ];
}
