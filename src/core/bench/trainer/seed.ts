/** A seed of its own for a bench of a set: the same for all when nothing tells them apart. */
export const seedOf = (seed: number, bench: number): number =>
  (Math.imul(seed ^ 0x9e3779b9, 2654435761 + 2 * bench) >>> 0) % 1_000_000;
