import type { Triple } from "../../quantity";

/**
 * A value with a spread, and the knob that turns it: everything on one knob moves together (rails of one source), and a
 * corner of the tolerances is a setting of all knobs.
 */
export interface Spread extends Triple {
  knob: string;
}

/** A value that does not vary. */
export const fixed = (v: number): Spread => ({ min: v, typ: v, max: v, knob: "" });

/** Settings of the knobs, −1 (lowest) to 1 (highest); a knob that is not named stands at 0, typical. */
export type Corner = ReadonlyMap<string, number>;

/** The value of a spread at a corner: straight from typical to each end. */
export function at(s: Spread, corner: Corner): number {
  const t = s.knob ? (corner.get(s.knob) ?? 0) : 0;
  return t < 0 ? s.typ + t * (s.typ - s.min) : s.typ + t * (s.max - s.typ);
}

/**
 * Two-ended and three-ended elements between nodes, all piecewise linear. Nodes are names; volts, amperes, ohms.
 * `id` says whose current it is. Bipolar transistors amplify, saturate or block; a MOSFET conducts as a resistor, follows
 * its gate, or blocks. A diode begins to conduct a little at its knee (a share of its forward voltage, behind `knee_ohm`), and
 * carries current with `ohm` behind its forward voltage.
 */
export type Element =
  | { kind: "resistor"; id: string; a: string; b: string; ohm: Spread }
  | { kind: "diode"; id: string; a: string; b: string; Vf: Spread; ohm: number; knee: number; knee_ohm: number }
  | { kind: "bjt"; id: string; npn: boolean; b: string; c: string; e: string; Vbe: Spread; gain: Spread; sat_V: number }
  | { kind: "fet"; id: string; n: boolean; g: string; d: string; s: string; Vth: Spread; ohm: number; full_V: number };

/** A circuit: elements between nodes, some of which are held at a voltage. */
export interface Network {
  elements: readonly Element[];
  held: ReadonlyMap<string, Spread>;
}

/** What blocks still leaks: keeps every node tied to something, far below what anybody measures. */
export const LEAK_S = 1e-12;
/** What a saturated transistor's collector and a conducting base look like, ohms, besides their drop. */
export const SAT_OHM = 0.1;
export const BASE_OHM = 1;

export const nodesOf = (e: Element): string[] =>
  e.kind === "bjt" ? [e.b, e.c, e.e] : e.kind === "fet" ? [e.g, e.d, e.s] : [e.a, e.b];
