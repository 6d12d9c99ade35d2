import { WAYS, type Ask, type Way } from "./methods";

/** A way with what can be counted from its parts. */
export interface Saving extends Way {
  /** Terminals to be joined: every lead of every part, and both ends of every wire. */
  joints: number;
  /** Parts in all. */
  count: number;
  /** Pins that it saves against a pin each. */
  saves: number;
}

const joints = (w: Way) => w.parts.reduce((s, p) => s + p.count * p.leads, 0) + 2 * w.wires;

/** What a chip that is put in still lacks. */
const NOT_YET = "our programs do not talk through this chip yet: its pins are in the plan";

/** How many of a thing are compared at most. */
export const MOST_WANTED = 256;

/**
 * Every way to connect `n` lights, keys, digits or analogue sensors, fewest pins first. Brightness is the average current
 * against the one wanted; duty, currents and refresh follow from the formulas of each way.
 */
export function savings(ask: Ask): Saving[] {
  const n = Math.max(1, Math.min(MOST_WANTED, Math.round(ask.n)));
  const ways = WAYS.flatMap((make) => make({ ...ask, n }) ?? []);
  const plain = ways.find((w) => w.id === "direct")!.pins;
  return ways
    .map((w) => ({
      ...w,
      minds: w.builds === "chips" ? [...w.minds, NOT_YET] : w.minds,
      joints: joints(w),
      count: w.parts.reduce((s, p) => s + p.count, 0),
      saves: plain - w.pins,
    }))
    .sort((a, b) => a.pins - b.pins || a.count - b.count || a.id.localeCompare(b.id));
}
