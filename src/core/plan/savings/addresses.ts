/** Which pair of lines is which key or light: from line `a` to line `b`, by the lines' labels. */
export interface Address {
  name: string;
  a: string;
  b: string;
}

/** The grid with the fewest lines that holds `n`, as square as can be; rows never more than columns. */
export function gridSize(n: number): { rows: number; cols: number } {
  let best = { rows: 1, cols: n };
  for (let rows = 1; rows * rows <= n; rows++) {
    const cols = Math.ceil(n / rows);
    if (rows + cols < best.rows + best.cols) best = { rows, cols };
    if (rows + cols === best.rows + best.cols && rows > best.rows) best = { rows, cols };
  }
  return best;
}

/** Lines that a charlieplexed group of `n` wants: the least m with m·(m−1) ≥ n, because every ordered pair is a place. */
export function charlieLines(n: number): number {
  let m = 2;
  while (m * (m - 1) < n) m++;
  return m;
}

/** Row by row: the k-th is at row ⌊k/cols⌋, column k mod cols. */
export const gridAddresses = (names: readonly string[], cols: number): Address[] =>
  names.map((name, k) => ({ name, a: `R${Math.floor(k / cols) + 1}`, b: `C${(k % cols) + 1}` }));

/** Ordered pairs of lines, grouped by the line that drives: from L1 to L2, L1 to L3, …, L2 to L1, … */
export function charlieAddresses(names: readonly string[], lines: number): Address[] {
  const pairs: [number, number][] = [];
  for (let a = 1; a <= lines; a++) for (let b = 1; b <= lines; b++) if (a !== b) pairs.push([a, b]);
  return names.map((name, k) => ({ name, a: `L${pairs[k]![0]}`, b: `L${pairs[k]![1]}` }));
}
