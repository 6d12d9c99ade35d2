/**
 * A square linear system, factored once and solved for several right-hand sides: LU with partial pivoting. Networks here
 * have a handful of nodes, so dense rows are the quickest.
 */
export interface Factored {
  n: number;
  lu: Float64Array;
  perm: Int32Array;
}

/** Factors `a` (n × n, row by row; overwritten). Null when the matrix has no inverse. */
export function factor(a: Float64Array, n: number): Factored | null {
  const perm = new Int32Array(n);
  for (let i = 0; i < n; i++) perm[i] = i;
  for (let k = 0; k < n; k++) {
    let p = k;
    for (let r = k + 1; r < n; r++) if (Math.abs(a[r * n + k]!) > Math.abs(a[p * n + k]!)) p = r;
    if (Math.abs(a[p * n + k]!) < 1e-18) return null;
    if (p !== k) {
      for (let c = 0; c < n; c++) {
        const t = a[k * n + c]!;
        a[k * n + c] = a[p * n + c]!;
        a[p * n + c] = t;
      }
      const t = perm[k]!;
      perm[k] = perm[p]!;
      perm[p] = t;
    }
    for (let r = k + 1; r < n; r++) {
      const f = a[r * n + k]! / a[k * n + k]!;
      a[r * n + k] = f;
      if (f) for (let c = k + 1; c < n; c++) a[r * n + c]! -= f * a[k * n + c]!;
    }
  }
  return { n, lu: a, perm };
}

/** x of A·x = b. */
export function solve({ n, lu, perm }: Factored, b: Float64Array): Float64Array {
  const x = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let s = b[perm[i]!]!;
    for (let c = 0; c < i; c++) s -= lu[i * n + c]! * x[c]!;
    x[i] = s;
  }
  for (let i = n - 1; i >= 0; i--) {
    let s = x[i]!;
    for (let c = i + 1; c < n; c++) s -= lu[i * n + c]! * x[c]!;
    x[i] = s / lu[i * n + i]!;
  }
  return x;
}

/** x of Aᵀ·x = b: the adjoint solve that gives the sensitivities of one quantity to everything at once. */
export function solveTransposed({ n, lu, perm }: Factored, b: Float64Array): Float64Array {
  const y = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let s = b[i]!;
    for (let r = 0; r < i; r++) s -= lu[r * n + i]! * y[r]!;
    y[i] = s / lu[i * n + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    let s = y[i]!;
    for (let r = i + 1; r < n; r++) s -= lu[r * n + i]! * y[r]!;
    y[i] = s;
  }
  const x = new Float64Array(n);
  for (let i = 0; i < n; i++) x[perm[i]!] = y[i]!;
  return x;
}
