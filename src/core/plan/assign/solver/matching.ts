/** Marks a pairing that is not allowed. */
export const NEVER = Infinity;

/**
 * Cheapest matching of every row to its own column, grown row by row (shortest augmenting paths with potentials). The
 * potentials prove the total and give each pairing's reduced cost: by how much the total grows at least if it is forced.
 */
export class Matching {
  readonly rows: Float64Array[] = [];
  private readonly u: number[] = [0];
  private readonly v: Float64Array;
  /** Column (from 1) to row (from 1); 0: free. */
  private readonly owner: Int32Array;
  private readonly way: Int32Array;
  private readonly least: Float64Array;
  private readonly used: Uint8Array;

  constructor(readonly columns: number) {
    this.v = new Float64Array(columns + 1);
    this.owner = new Int32Array(columns + 1);
    this.way = new Int32Array(columns + 1);
    this.least = new Float64Array(columns + 1);
    this.used = new Uint8Array(columns + 1);
  }

  /** Forgets all rows, to be used again. */
  reset() {
    this.rows.length = 0;
    this.u.length = 1;
    this.v.fill(0);
    this.owner.fill(0);
  }

  /** Adds a row (its price for every column, or NEVER). False when it can't be matched with the others; then stop. */
  add(row: Float64Array): boolean {
    const { u, v, owner, way, least, used, columns, rows } = this;
    rows.push(row);
    u.push(0);
    owner[0] = rows.length;
    least.fill(Infinity);
    used.fill(0);
    let at = 0;
    do {
      used[at] = 1;
      const r = owner[at]!;
      const costs = rows[r - 1]!;
      const base = u[r]!;
      let delta = Infinity;
      let next = 0;
      for (let c = 1; c <= columns; c++) {
        if (used[c]) continue;
        const reduced = costs[c - 1]! - base - v[c]!;
        if (reduced < least[c]!) {
          least[c] = reduced;
          way[c] = at;
        }
        if (least[c]! < delta) {
          delta = least[c]!;
          next = c;
        }
      }
      if (delta === Infinity) return false;
      for (let c = 0; c <= columns; c++)
        if (used[c]) {
          u[owner[c]!]! += delta;
          v[c]! -= delta;
        } else least[c]! -= delta;
      at = next;
    } while (owner[at] !== 0);
    do {
      const from = way[at]!;
      owner[at] = owner[from]!;
      at = from;
    } while (at);
    return true;
  }

  /** The column of every row. */
  columnsOfRows(): Int32Array {
    const out = new Int32Array(this.rows.length).fill(-1);
    for (let c = 1; c <= this.columns; c++) if (this.owner[c]) out[this.owner[c]! - 1] = c - 1;
    return out;
  }

  /** The total, summed from the prices. */
  total(): number {
    let sum = 0;
    for (let c = 1; c <= this.columns; c++) if (this.owner[c]) sum += this.rows[this.owner[c]! - 1]![c - 1]!;
    return sum;
  }

  /** By how much the total grows at least when `row` is forced onto `column`. */
  reduced(row: number, column: number): number {
    return this.rows[row]![column]! - this.u[row + 1]! - this.v[column + 1]!;
  }
}

/** Cheapest matching of a whole table at once; null when not every row finds a column. */
export function cheapestMatching(
  cost: readonly (readonly number[])[],
  columns: number,
): { column: number[]; total: number } | null {
  const m = new Matching(columns);
  for (const row of cost) if (!m.add(Float64Array.from(row))) return null;
  return { column: [...m.columnsOfRows()], total: m.total() };
}
