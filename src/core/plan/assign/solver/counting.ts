import type { Problem, ProblemNeed } from "../problem";

/**
 * Needs that want a pin each and have too few pins between them: a maximum matching of needs to pins (Hopcroft and Karp's
 * question, answered by augmenting paths), and from a need that is left over everybody whose pins are in the way. Without any
 * one of these the rest has a pin each. Null when every need finds a pin by count alone; that does not mean that they fit.
 */
export function countingClash(p: Problem): ProblemNeed[] | null {
  const alone = p.needs.find((n) => !n.choices.length);
  if (alone) return [alone];
  // Bus lines share their pins; everything else wants one of its own.
  const single = p.needs.flatMap((n, i) => (n.share === null ? [i] : []));
  const pinsOf = new Map(single.map((i) => [i, [...new Set(p.needs[i]!.choices.map((c) => c.pin))]]));
  const owner = new Map<number, number>();
  const place = (need: number, seen: Set<number>): boolean => {
    for (const pin of pinsOf.get(need)!) {
      if (seen.has(pin)) continue;
      seen.add(pin);
      const there = owner.get(pin);
      if (there === undefined || place(there, seen)) {
        owner.set(pin, need);
        return true;
      }
    }
    return false;
  };
  for (const need of single) {
    const seen = new Set<number>();
    if (place(need, seen)) continue;
    // Every pin in reach is held by a need that has no other way: they and the one left over are one more than the pins.
    return [need, ...[...seen].map((pin) => owner.get(pin)!)].sort((a, b) => a - b).map((i) => p.needs[i]!);
  }
  return null;
}
