import { nextUp } from "../../quantity";

/** What lights on shared lines are asked for and hang on: volts, amperes; forward voltage least and usual. */
export interface LineAsk {
  V: number;
  pin_A: number;
  I: number;
  Vf: { min: number; typ: number };
  /** Lights that one driving pin has to carry at once. */
  atOnce: number;
}

/** A supply at the top of its tolerance, a resistor at the bottom of its own. */
const V_HIGH = 1.05;
const R_LOW = 0.95;
const up = (ohm: number) => nextUp(Math.max(1, ohm), "E12", []);

/**
 * The resistor of each column of a grid, ohms, and what one light then gets. Every light of a row has its column's resistor
 * to itself, and the row's pin carries all of them: at the highest supply, the lowest forward voltage and a resistor 5 % low
 * it stays within what a pin likes. Next E12 value up.
 */
export function gridResistor(a: LineAsk): { ohm: number; each_A: number; pin_A: number } {
  const wish = (a.V - a.Vf.typ) / a.I;
  const least = ((a.V * V_HIGH - a.Vf.min) * a.atOnce) / (R_LOW * a.pin_A);
  const ohm = up(Math.max(wish, least));
  const each_A = (a.V - a.Vf.typ) / ohm;
  return { ohm, each_A, pin_A: each_A * a.atOnce };
}

/**
 * The resistor of each line of a charlieplexed group. The driving line's resistor carries the sum of its n lights and each
 * sinking line's its own: V − Vf = I·R + n·I·R, so a light gets less the more of its group are lit. Alone it shall not get
 * more than was wanted, and all together the pin stays within what it likes at the worst case. Next E12 value up.
 */
export function ringResistor(a: LineAsk): { ohm: number; each_A: number; pin_A: number; alone_A: number } {
  const wish = (a.V - a.Vf.typ) / (2 * a.I);
  const least = ((a.V * V_HIGH - a.Vf.min) * a.atOnce) / ((a.atOnce + 1) * R_LOW * a.pin_A);
  const ohm = up(Math.max(wish, least));
  const each_A = (a.V - a.Vf.typ) / (ohm * (1 + a.atOnce));
  return { ohm, each_A, pin_A: each_A * a.atOnce, alone_A: (a.V - a.Vf.typ) / (2 * ohm) };
}
