import type { Chemistry } from "../../parts/catalogue";

/**
 * What cold does to cells: the share of the charge that can still be used, and how many times larger the inner
 * resistance is, by °C. Rounded to the bad side from the discharge figures that cell data sheets print at 20, 0 and
 * −20 °C for light loads; a cool room (10 °C) is what the worn cell of the estimate stands for already.
 */
const COLD: Record<Chemistry, [C: number, share: number, times: number][]> = {
  alkaline: [
    [-20, 0.3, 4],
    [0, 0.7, 2],
    [10, 1, 1],
  ],
  nimh: [
    [-20, 0.4, 4],
    [0, 0.85, 2],
    [10, 1, 1],
  ],
  lithium: [
    [-20, 0.5, 5],
    [0, 0.85, 2],
    [10, 1, 1],
  ],
  lifepo4: [
    [-20, 0.45, 6],
    [0, 0.8, 2.5],
    [10, 1, 1],
  ],
  lead: [
    [-20, 0.5, 2.5],
    [0, 0.8, 1.5],
    [10, 1, 1],
  ],
  coin: [
    [-20, 0.5, 6],
    [0, 0.8, 2.5],
    [10, 1, 1],
  ],
};

/** Share of the charge and factor of the inner resistance at `C` °C, in straight lines between the known points. */
export function inCold(chemistry: Chemistry, C: number): { share: number; times: number } {
  const points = COLD[chemistry];
  const [first, last] = [points[0]!, points.at(-1)!];
  const at = Math.min(last[0], Math.max(first[0], C));
  const i = Math.max(
    1,
    points.findIndex(([t]) => t >= at),
  );
  const [t0, s0, r0] = points[i - 1]!;
  const [t1, s1, r1] = points[i]!;
  const f = (at - t0) / (t1 - t0);
  return { share: s0 + f * (s1 - s0), times: r0 + f * (r1 - r0) };
}
