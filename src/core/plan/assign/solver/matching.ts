/** Marks a pairing that is not allowed. */
export const NEVER = Infinity;

/** Where a matching stands: kept by a subtree, so that the next one changes only the rows that differ. */
export interface Standing {
  rows: readonly Float64Array[];
  u: Float64Array;
  v: Float64Array;
  owner: Int32Array;
}

/**
 * Cheapest matching of every row to its own column, grown row by row (shortest augmenting paths with potentials); a row can
 * be taken out again, by the same search from its column. The potentials prove the total and give each pairing's reduced
 * cost: by how much the total grows at least if it is forced. Of a free column the potential is 0, of a taken one at most 0.
 */
export class Matching {
  rows: Float64Array[] = [];
  /** Potential by row, from 1. */
  private u = new Float64Array(64);
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
    this.rows = [];
    this.u.fill(0);
    this.v.fill(0);
    this.owner.fill(0);
  }

  /** A copy of where everything stands now. */
  standing(): Standing {
    return { rows: [...this.rows], u: this.u.slice(), v: this.v.slice(), owner: this.owner.slice() };
  }

  /** Goes back to a copy. */
  restore(s: Standing) {
    this.rows = [...s.rows];
    this.u = s.u.slice();
    this.v.set(s.v);
    this.owner.set(s.owner);
  }

  /** Adds a row (its price for every column, or NEVER). False when it can't be matched with the others; then stop. */
  add(row: Float64Array): boolean {
    this.rows.push(row);
    return this.seat(this.rows.length - 1);
  }

  /** Gives a row other prices. False when it can't be matched any more; then stop. */
  change(row: number, costs: Float64Array): boolean {
    this.leave(row);
    this.rows[row] = costs;
    return this.seat(row);
  }

  /** Takes a row out; the last one gets its place. */
  drop(row: number) {
    this.leave(row);
    const last = this.rows.pop()!;
    if (row === this.rows.length) return;
    this.rows[row] = last;
    this.u[row + 1] = this.u[this.rows.length + 1]!;
    this.owner[this.owner.indexOf(this.rows.length + 1)] = row + 1;
  }

  /** Finds a column for a row that has none. */
  private seat(row: number): boolean {
    const { v, owner, way, least, used, columns, rows } = this;
    if (row + 2 > this.u.length) {
      const more = new Float64Array(this.u.length * 2);
      more.set(this.u);
      this.u = more;
    }
    const { u } = this;
    u[row + 1] = 0;
    owner[0] = row + 1;
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
    // Column 0 is the seeker's own waiting place: nothing stays in it.
    v[0] = 0;
    owner[0] = 0;
    return true;
  }

  /** Takes a row off its column. Its column, or one that a chain of others leaves for it, is free then. */
  private leave(row: number) {
    const { u, v, owner, way, least, used, columns, rows } = this;
    const first = owner.indexOf(row + 1);
    owner[first] = 0;
    least.fill(Infinity);
    used.fill(0);
    least[first] = 0;
    let most = Infinity;
    let end = first;
    for (;;) {
      let at = 0;
      let near = most;
      for (let c = 1; c <= columns; c++)
        if (!used[c] && least[c]! < near) {
          near = least[c]!;
          at = c;
        }
      if (at === 0) break;
      used[at] = 1;
      if (near - v[at]! < most) {
        most = near - v[at]!;
        end = at;
      }
      for (let c = 1; c <= columns; c++) {
        const r = owner[c]!;
        if (used[c] || r === 0) continue;
        const there = near + rows[r - 1]![at - 1]! - u[r]! - v[at]!;
        if (there < least[c]!) {
          least[c] = there;
          way[c] = at;
        }
      }
    }
    for (let c = 1; c <= columns; c++) {
      const by = most - least[c]!;
      if (!(by > 0)) continue;
      v[c]! += by;
      if (owner[c]) u[owner[c]!]! -= by;
    }
    v[end] = 0;
    let moving = owner[end]!;
    owner[end] = 0;
    for (let at = end; at !== first;) {
      at = way[at]!;
      const next = owner[at]!;
      owner[at] = moving;
      moving = next;
    }
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
