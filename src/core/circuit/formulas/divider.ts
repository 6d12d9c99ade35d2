import { seriesValues, type Triple } from "../../quantity";

/** What a divider must do: bring `from` (the driver's high, volts) under `ceiling` and keep it above `VIH`. */
export interface DividerWish {
  from: Triple;
  VIH: number;
  ceiling: number;
  owned?: readonly number[];
}

export interface DividerChoice {
  top_ohm: number;
  bottom_ohm: number;
  /** Volts at the tap, worst cases with 5 % resistors. */
  out: Triple;
}

const TOLERANCE = 0.05;
const ratio = (top: number, bottom: number, t: number) => (bottom * (1 + t)) / (bottom * (1 + t) + top * (1 - t));

/**
 * The E12 pair (total 1.5 to 8 kΩ: light load, quick edges) whose worst-case high stays under the ceiling and over
 * VIH with the largest smaller margin. Null when no pair does. Vout = Vin · Rb / (Ra + Rb).
 */
export function chooseDivider({ from, VIH, ceiling, owned = [] }: DividerWish): DividerChoice | null {
  const all = seriesValues("E12", 470, 6800);
  const mine = owned.filter((v) => v >= 470 && v <= 6800);
  for (const values of mine.length > 1 ? [mine, all] : [all]) {
    let best: (DividerChoice & { score: number }) | null = null;
    for (const top of values)
      for (const bottom of values) {
        if (top + bottom < 1500 || top + bottom > 8000) continue;
        const out = {
          min: from.min * ratio(top, bottom, -TOLERANCE),
          typ: from.typ * ratio(top, bottom, 0),
          max: from.max * ratio(top, bottom, TOLERANCE),
        };
        const score = Math.min(ceiling - out.max, out.min - VIH);
        if (score >= 0 && (!best || score > best.score + 1e-9)) best = { top_ohm: top, bottom_ohm: bottom, out, score };
      }
    if (best) return { top_ohm: best.top_ohm, bottom_ohm: best.bottom_ohm, out: best.out };
  }
  return null;
}
