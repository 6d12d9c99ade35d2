import type { WireRow } from "./wires";

/** How many of each kind of end pair, and how much wire in all. */
export function wireSums(
  rows: readonly WireRow[],
): { ends: string; kind: string; quantity: number; total_cm: number }[] {
  const out = new Map<string, { ends: string; kind: string; quantity: number; total_cm: number }>();
  for (const r of rows) {
    const key = `${r.kind}|${r.ends}`;
    const sum = out.get(key) ?? { ends: r.ends, kind: r.kind, quantity: 0, total_cm: 0 };
    sum.quantity += r.quantity;
    sum.total_cm += r.quantity * r.length_cm;
    out.set(key, sum);
  }
  return [...out.values()];
}
