import { nextUp } from "../../quantity";

/** Volts and amperes for an LED (or `n` in series) driven from a supply or pin. */
export interface LedWish {
  V: number;
  Vf: number;
  n?: number;
  I: number;
  /** Output resistance of the pin that drives it, ohms (its drop at the wanted current is part of the sum). */
  pin_ohm?: number;
  owned?: readonly number[];
}

/**
 * Series resistor of an LED: R = (V − n·Vf − I·Rpin) / I, next E12 value up. Returns the exact and the chosen value and
 * the dissipation at the wanted current (choose a rating of twice that). Null when the supply leaves nothing for it.
 */
export function ledResistor({ V, Vf, n = 1, I, pin_ohm = 0, owned }: LedWish) {
  const exact = (V - n * Vf - I * pin_ohm) / I;
  if (!(exact > 0)) return null;
  const ohm = nextUp(exact, "E12", owned);
  const current = (V - n * Vf) / (ohm + pin_ohm);
  return { exact, ohm, current, W: current * current * ohm };
}
