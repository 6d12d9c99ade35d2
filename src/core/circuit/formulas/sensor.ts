import { nextUp, seriesValues } from "../../quantity";

/** A resistive sensor (light, heat) as one half of a divider. */
export interface SensorAsk {
  V: number;
  /** The sensor's resistance at both ends of what shall be told apart, ohms. */
  min_ohm: number;
  max_ohm: number;
  /** True when the sensor stands between supply and pin, false between pin and ground. */
  sensorUp: boolean;
  bits: number;
  full_V: number;
  owned?: readonly number[];
}
export interface SensorDivider {
  exact: number;
  ohm: number;
  /** Volts at the pin at both ends, and how far they are apart. */
  at_min_V: number;
  at_max_V: number;
  swing_V: number;
  /** Steps of the converter between both ends. */
  steps: number;
  /** What the converter looks into at most: both resistors in parallel. */
  source_ohm: number;
  sensor_W: number;
}

/** The series value, or owned one, nearest in ratio. */
export function nearest(value: number, owned: readonly number[] = []): number {
  const far = (v: number) => Math.abs(Math.log(v / value));
  const mine = owned.filter((v) => far(v) < Math.log(1.3));
  const list = mine.length ? mine : [...seriesValues("E12", value / 3, value * 3), nextUp(value)];
  return [...list].sort((a, b) => far(a) - far(b))[0]!;
}

/**
 * The fixed resistor that makes the widest swing: R = √(Rmin·Rmax), by setting the derivative of
 * V·(Rmax/(R + Rmax) − Rmin/(R + Rmin)) to zero; nearest E12 value.
 */
export function sensorDivider(a: SensorAsk): SensorDivider {
  const exact = Math.sqrt(a.min_ohm * a.max_ohm);
  const ohm = nearest(exact, a.owned);
  const at = (sensor: number) => (a.V * (a.sensorUp ? ohm : sensor)) / (sensor + ohm);
  const [lo, hi] = [at(a.min_ohm), at(a.max_ohm)];
  const swing_V = Math.abs(hi - lo);
  const steps = Math.floor((Math.min(swing_V, a.full_V) / a.full_V) * (2 ** a.bits - 1));
  const current = a.V / (a.min_ohm + ohm);
  return {
    exact,
    ohm,
    at_min_V: lo,
    at_max_V: hi,
    swing_V,
    steps,
    source_ohm: (a.max_ohm * ohm) / (a.max_ohm + ohm),
    sensor_W: current * current * a.min_ohm,
  };
}
