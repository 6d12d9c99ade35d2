import { nextUp, type Triple } from "../../quantity";
import { nextDown } from "./transistor";

/** An optocoupler carrying a signal: light side and transistor side. Volts, amperes; ctr as a share (0.5 = 50 %). */
export interface OptoAsk {
  V_in: Triple;
  Vf: Triple;
  I: number;
  ctr_min: number;
  V_out: number;
  VCEsat_V: number;
  owned?: readonly number[];
}
export interface Opto {
  led_ohm: number;
  led_A: number;
  /** Least collector current that the light guarantees, and the smallest pull-up that it can still pull low. */
  out_A: number;
  pull_min_ohm: number;
  pull_ohm: number;
}

/** Ageing takes light: the transfer ratio is counted at 70 % of its least value when new. */
const AGED = 0.7;

/**
 * Series resistor of the light, R = (V − Vf)/I, next E12 value down so that the least current is reached at the worst
 * case; pull-up so that CTR·I pulls it low: R ≥ (Vout − VCEsat)/(CTR·I), twice that taken, next value up.
 */
export function optoStage(a: OptoAsk): Opto | null {
  const head = a.V_in.min - a.Vf.max;
  if (head <= 0) return null;
  const led_ohm = nextDown(head / a.I, a.owned);
  const led_A = head / (led_ohm * 1.05);
  const out_A = led_A * a.ctr_min * AGED;
  const pull_min_ohm = (a.V_out - a.VCEsat_V) / out_A;
  return { led_ohm, led_A, out_A, pull_min_ohm, pull_ohm: nextUp(pull_min_ohm * 2, "E12", a.owned) };
}
