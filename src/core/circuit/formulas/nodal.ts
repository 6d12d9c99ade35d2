/** A resistor between two nodes, in ohms. */
export interface Branch {
  a: string;
  b: string;
  ohm: number;
}

/**
 * Node voltages of a resistor network with some nodes held at given voltages (Kirchhoff's current law, Gaussian
 * elimination with pivoting). Nodes that no held node reaches come back as NaN: they float.
 */
export function solveNodes(branches: readonly Branch[], held: ReadonlyMap<string, number>): Map<string, number> {
  const out = new Map(held);
  const reached = new Set(held.keys());
  for (let grew = true; grew;) {
    grew = false;
    for (const { a, b } of branches)
      if (reached.has(a) !== reached.has(b)) {
        reached.add(a).add(b);
        grew = true;
      }
  }
  const names = [...new Set(branches.flatMap((x) => [x.a, x.b]))];
  const free = names.filter((x) => !held.has(x) && reached.has(x));
  for (const x of names) if (!reached.has(x)) out.set(x, NaN);
  const at = new Map(free.map((x, i) => [x, i]));
  const m = free.map(() => new Array<number>(free.length + 1).fill(0));
  for (const { a, b, ohm } of branches) {
    const g = 1 / Math.max(ohm, 1e-6);
    for (const [from, to] of [
      [a, b],
      [b, a],
    ] as const) {
      const i = at.get(from);
      if (i === undefined) continue;
      m[i]![i]! += g;
      const j = at.get(to);
      if (j !== undefined) m[i]![j]! -= g;
      else m[i]![free.length]! += g * (held.get(to) ?? 0);
    }
  }
  for (let i = 0; i < free.length; i++) {
    let pivot = i;
    for (let r = i + 1; r < free.length; r++) if (Math.abs(m[r]![i]!) > Math.abs(m[pivot]![i]!)) pivot = r;
    [m[i], m[pivot]] = [m[pivot]!, m[i]!];
    for (let r = 0; r < free.length; r++) {
      if (r === i) continue;
      const f = m[r]![i]! / m[i]![i]!;
      if (f) for (let c = i; c <= free.length; c++) m[r]![c]! -= f * m[i]![c]!;
    }
  }
  free.forEach((x, i) => out.set(x, m[i]![free.length]! / m[i]![i]!));
  return out;
}
