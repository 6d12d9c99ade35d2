import { evaluate } from "../../quantity";
import { outputOf, type Level } from "../../parts/catalogue";

/** An output whose data names a drop without a current is taken to have it at this current, amperes. */
export const RATED_A = 0.004;
/** From here on an output's drop is that of bipolar transistors, which is there at any current, volts. */
export const BIPOLAR_V = 0.5;

/** Half a volt off a supply is half a volt, whatever the last digit of the subtraction says. */
export const SLACK_V = 1e-6;

/**
 * An output as a line: volts without load, and ohms behind them. A data sheet's "VOH = V − 0.4 V" is a point of that line at
 * the rated current, not a drop that a bare input would see; a value with the current in it is the line itself, a plain number
 * and the drop of a bipolar output stay what they are. Volts, ohms; `V` the pin's own supply.
 */
export function outputLine(
  level: Level,
  V: number,
  vars: Record<string, number>,
  side: "VOH" | "VOL",
): { V0: number; ohm: number } {
  const rated = (level.pin_mA?.recommended ?? RATED_A * 1000) / 1000;
  const expression = outputOf(level, side);
  if (expression === undefined) return { V0: side === "VOH" ? V : 0, ohm: 0 };
  const value = (I: number, at = V) => evaluate(expression, { ...vars, V: at, I });
  const [none, some] = [value(0), value(rated)];
  const slope = Math.abs(some - none) / rated;
  if (slope > 1e-6) return { V0: none, ohm: slope };
  if (side === "VOL") return none < BIPOLAR_V ? { V0: 0, ohm: none / RATED_A } : { V0: none, ohm: 0 };
  // Riding on the supply: the drop belongs to the rated current. A number of its own is a regulated or guaranteed level.
  const rides = Math.abs(value(0, V + 1) - none - 1) < 1e-6;
  const drop = V - none;
  return rides && drop > 0 && drop < BIPOLAR_V - SLACK_V ? { V0: V, ohm: drop / RATED_A } : { V0: none, ohm: 0 };
}
