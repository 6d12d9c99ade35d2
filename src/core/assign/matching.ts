/** Larger than any real total; marks a pairing that is not allowed. */
export const NEVER = 1e12;

/**
 * Cheapest matching of every row to its own column (Kuhn–Munkres with potentials, O(rows²·columns)).
 * `cost[r][c]` is a number or NEVER. Returns the column of each row and the total, or null when rows can't all be matched.
 */
export function cheapestMatching(
  cost: readonly (readonly number[])[],
  columns: number,
): { column: number[]; total: number } | null {
  const rows = cost.length;
  if (rows > columns) return null;
  const u = new Float64Array(rows + 1);
  const v = new Float64Array(columns + 1);
  const owner = new Int32Array(columns + 1);
  const way = new Int32Array(columns + 1);
  for (let r = 1; r <= rows; r++) {
    owner[0] = r;
    let c0 = 0;
    const least = new Float64Array(columns + 1).fill(Infinity);
    const used = new Uint8Array(columns + 1);
    do {
      used[c0] = 1;
      const row = owner[c0]!;
      let delta = Infinity;
      let c1 = 0;
      for (let c = 1; c <= columns; c++) {
        if (used[c]) continue;
        const reduced = cost[row - 1]![c - 1]! - u[row]! - v[c]!;
        if (reduced < least[c]!) {
          least[c] = reduced;
          way[c] = c0;
        }
        if (least[c]! < delta) {
          delta = least[c]!;
          c1 = c;
        }
      }
      for (let c = 0; c <= columns; c++)
        if (used[c]) {
          u[owner[c]!]! += delta;
          v[c]! -= delta;
        } else least[c]! -= delta;
      c0 = c1;
    } while (owner[c0] !== 0);
    do {
      const c1 = way[c0]!;
      owner[c0] = owner[c1]!;
      c0 = c1;
    } while (c0);
  }
  const column = new Array<number>(rows).fill(-1);
  let total = 0;
  for (let c = 1; c <= columns; c++)
    if (owner[c]) {
      column[owner[c]! - 1] = c - 1;
      total += cost[owner[c]! - 1]![c - 1]!;
    }
  return total >= NEVER ? null : { column, total };
}
