import type { Problem, ProblemNeed } from "../problem";
import { feasible } from "./solve";

/** The same problem with only some of its needs; rows of lines that lose one are given up. */
export function subProblem(p: Problem, keep: ReadonlySet<string>): Problem {
  const kept = p.needs.map((n) => keep.has(n.id));
  const place = kept.map((_, i) => kept.slice(0, i).filter(Boolean).length);
  return {
    ...p,
    needs: p.needs.filter((_, i) => kept[i]),
    orders: p.orders
      .filter((o) => o.needs.every((n) => kept[n]))
      .map((o) => ({ ...o, needs: o.needs.map((n) => place[n]!) })),
  };
}

/** A minimal clashing set: without any one of these needs the rest of them fits. Empty when the problem is solvable. */
export function clashingCore(p: Problem): ProblemNeed[] {
  if (feasible(p)) return [];
  // One need that nothing serves is the shortest answer.
  const alone = p.needs.find((n) => !n.choices.length);
  if (alone) return [alone];
  const keep = new Set(p.needs.map((n) => n.id));
  for (const n of [...p.needs].reverse()) {
    keep.delete(n.id);
    if (feasible(subProblem(p, keep))) keep.add(n.id);
  }
  return p.needs.filter((n) => keep.has(n.id));
}
