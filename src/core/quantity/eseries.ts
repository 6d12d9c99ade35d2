/** Preferred numbers of IEC 60063, two significant digits for E6 to E24. */
const E24 = [
  1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2,
  9.1,
];
export type SeriesName = "E6" | "E12" | "E24";
const STEP: Record<SeriesName, number> = { E6: 4, E12: 2, E24: 1 };

const tidy = (x: number) => Number(x.toPrecision(3));

/** All values of a series from `from` to `to` inclusive, ascending. Same unit in and out. Source: IEC 60063. */
export function seriesValues(series: SeriesName, from: number, to: number): number[] {
  const mantissas = E24.filter((_, i) => i % STEP[series] === 0);
  const out: number[] = [];
  for (let decade = Math.floor(Math.log10(from)); decade <= Math.ceil(Math.log10(to)); decade++)
    for (const m of mantissas) {
      const v = tidy(m * 10 ** decade);
      if (v >= from * (1 - 1e-9) && v <= to * (1 + 1e-9)) out.push(v);
    }
  return out;
}

/**
 * The smallest series value that is not below `value` (> 0). `owned`, when given and not empty, is preferred: the
 * smallest owned value within one and a half times `value`, else the series decides.
 */
export function nextUp(value: number, series: SeriesName = "E12", owned: readonly number[] = []): number {
  if (!(value > 0) || !Number.isFinite(value)) throw new RangeError(`nextUp needs a positive number, got ${value}`);
  const mine = owned.filter((v) => v >= value * (1 - 1e-9) && v <= value * 1.5).sort((a, b) => a - b)[0];
  return mine ?? seriesValues(series, value, value * 10)[0]!;
}
