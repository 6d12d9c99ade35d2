/** What cells are made of, as sources in the catalogue name it. */
export const CHEMISTRIES = ["alkaline", "nimh", "lithium", "lifepo4", "lead", "coin"] as const;
export type Chemistry = (typeof CHEMISTRIES)[number];

/**
 * Volts of one cell against the share of its charge that is used, at small currents: typical shapes of the kind, from
 * the discharge figures that cell data sheets print. Between the points it is a straight line.
 */
const CURVES: Record<Chemistry, [used: number, V: number][]> = {
  alkaline: [
    [0, 1.6],
    [0.05, 1.5],
    [0.2, 1.38],
    [0.4, 1.27],
    [0.6, 1.2],
    [0.8, 1.12],
    [0.9, 1.04],
    [0.97, 0.92],
    [1, 0.8],
  ],
  lithium: [
    [0, 4.2],
    [0.05, 4.08],
    [0.2, 3.92],
    [0.4, 3.78],
    [0.6, 3.68],
    [0.8, 3.58],
    [0.9, 3.48],
    [0.96, 3.3],
    [1, 3.0],
  ],
  nimh: [
    [0, 1.4],
    [0.05, 1.33],
    [0.2, 1.28],
    [0.4, 1.25],
    [0.6, 1.23],
    [0.8, 1.19],
    [0.9, 1.14],
    [0.96, 1.05],
    [1, 0.9],
  ],
  lifepo4: [
    [0, 3.6],
    [0.03, 3.35],
    [0.2, 3.3],
    [0.5, 3.25],
    [0.8, 3.2],
    [0.9, 3.1],
    [0.96, 2.9],
    [1, 2.5],
  ],
  // One cell of two volts.
  lead: [
    [0, 2.13],
    [0.2, 2.08],
    [0.4, 2.04],
    [0.6, 1.99],
    [0.8, 1.93],
    [0.9, 1.88],
    [1, 1.75],
  ],
  // Lithium and manganese dioxide, in coins: flat, then a steep end.
  coin: [
    [0, 3.1],
    [0.05, 2.95],
    [0.5, 2.9],
    [0.8, 2.8],
    [0.9, 2.65],
    [0.95, 2.4],
    [1, 2.0],
  ],
};

/** Volts of one cell at small currents when `used` (0 to 1) of its charge is gone. */
export function cellVolts(chemistry: Chemistry, used: number): number {
  const points = CURVES[chemistry];
  const i = Math.max(
    1,
    points.findIndex(([u]) => u >= Math.min(1, used)),
  );
  const [u0, v0] = points[i - 1]!;
  const [u1, v1] = points[i]!;
  return v0 + ((used - u0) / (u1 - u0)) * (v1 - v0);
}
