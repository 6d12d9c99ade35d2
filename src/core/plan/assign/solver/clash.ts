import type { Problem, ProblemNeed } from "../problem";
import { countingClash } from "./counting";
import { fits } from "./solve";

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

/** Nodes for one question of the many that a smallest clash takes. */
const MOST_ASKED = 4000;
/** A clash by count alone that is larger than this is told as it is. */
const PLAIN = 16;

/**
 * A minimal clashing set: without any one of these needs the rest of them fits. Counting comes first, and names a clash at
 * once where pins are too few; where a question is cut off, a need counts as part of the clash. Empty when the problem is
 * solvable, or when nobody could tell within the budget.
 */
export function clashingCore(p: Problem): ProblemNeed[] {
  const counted = countingClash(p);
  if (counted && (counted.length === 1 || counted.length > PLAIN)) return counted;
  const from = counted ? subProblem(p, new Set(counted.map((n) => n.id))) : p;
  if (!counted && fits(from, MOST_ASKED) !== "no") return [];
  const keep = new Set(from.needs.map((n) => n.id));
  for (const n of [...from.needs].reverse()) {
    keep.delete(n.id);
    if (fits(subProblem(from, keep), MOST_ASKED) !== "no") keep.add(n.id);
  }
  return p.needs.filter((n) => keep.has(n.id));
}
