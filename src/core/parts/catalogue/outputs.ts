import { evaluate, type Expr } from "../../quantity";
import type { Level } from "./schema";

export type Side = "VOH" | "VOL";
type Point = NonNullable<Level["points"]>[number];

/** What an output loses at a point, ohms: the drop from its supply, or what is left above ground, over the current. */
const ohmAt = (p: Point, side: Side) => (side === "VOH" ? p.V - p.VOH! : p.VOL!) / (p.mA / 1000);
const short = (x: number) => String(Number(x.toPrecision(5)));

/** The largest resistance that the points of one side come to, at each supply that they are given for, lowest supply first. */
function worst(points: readonly Point[], side: Side): { V: number; ohm: number }[] {
  const by = new Map<number, number>();
  for (const p of points) if (p[side] !== undefined) by.set(p.V, Math.max(by.get(p.V) ?? 0, ohmAt(p, side)));
  return [...by].map(([V, ohm]) => ({ V, ohm })).sort((a, b) => a.V - b.V);
}

/**
 * The resistance behind an output as an expression in `V`, from the points of its data sheet: straight lines between the
 * supplies that it names, going on below the lowest, never less than above the highest. Where the points bend the other way
 * the larger line is taken: the worse case.
 */
function ohmOf(points: readonly Point[], side: Side): string | null {
  const list = worst(points, side);
  const last = list.at(-1);
  if (!last) return null;
  const lines = list.slice(1).map((b, i) => {
    const a = list[i]!;
    const slope = (b.ohm - a.ohm) / (b.V - a.V);
    return slope < 0 ? `${short(a.ohm - slope * a.V)}-${short(-slope)}*V` : short(b.ohm);
  });
  return [...new Set([short(last.ohm), ...lines])].reduce((a, b) => `max(${a},${b})`);
}

/**
 * What an output gives at least when high (`VOH`) or at most when low (`VOL`), volts, as an expression in its supply `V` and
 * its current `I` in amperes: what its data state as one, else the line through the points of its data sheet.
 */
export function outputOf(level: Level, side: Side): Expr | undefined {
  if (level[side] !== undefined || !level.points) return level[side];
  const ohm = ohmOf(level.points, side);
  return ohm === null ? undefined : side === "VOH" ? `V-(${ohm})*I` : `(${ohm})*I`;
}

/** Rounding of expressions against points that are printed with two digits, volts. */
const PRINTED_V = 0.011;

/** Points of a data sheet that the expression of a level set promises more than; none for data that agree with themselves. */
export const outdone = (level: Level, vars: Record<string, number>): { point: Point; side: Side; says: number }[] =>
  (level.points ?? []).flatMap((point) =>
    (["VOH", "VOL"] as const).flatMap((side) => {
      const rule = outputOf(level, side);
      const limit = point[side];
      if (rule === undefined || limit === undefined) return [];
      const says = evaluate(rule, { ...vars, V: point.V, I: point.mA / 1000 });
      const better = side === "VOH" ? says - limit : limit - says;
      return better > PRINTED_V ? [{ point, side, says }] : [];
    }),
  );
