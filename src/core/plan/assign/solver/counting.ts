import type { Problem, ProblemNeed } from "../problem";

/** Everybody that is in the way of somebody who finds no place (augmenting paths); null when all find one. */
function leftOver(who: readonly number[], placesOf: ReadonlyMap<number, readonly number[]>): number[] | null {
  const owner = new Map<number, number>();
  const place = (x: number, seen: Set<number>): boolean => {
    for (const at of placesOf.get(x)!) {
      if (seen.has(at)) continue;
      seen.add(at);
      const there = owner.get(at);
      if (there === undefined || place(there, seen)) {
        owner.set(at, x);
        return true;
      }
    }
    return false;
  };
  for (const x of who) {
    const seen = new Set<number>();
    // Every place in reach is held by one that has no other way: they and the one left over are one more than the places.
    if (!place(x, seen)) return [x, ...[...seen].map((at) => owner.get(at)!)].sort((a, b) => a - b);
  }
  return null;
}

/** Groups that clash with one another, each with all: of several such sets one for every group, grown in order. */
function cliques(p: Problem): number[][] {
  const meets = p.groups.map(() => new Set<number>());
  for (const [a, b] of p.clashes) {
    meets[a]!.add(b);
    meets[b]!.add(a);
  }
  const out = p.groups.map((_, g) => {
    const clique = [g];
    for (const h of meets[g]!) if (clique.every((x) => meets[x]!.has(h))) clique.push(h);
    return clique.sort((a, b) => a - b);
  });
  return [...new Map(out.filter((c) => c.length > 1).map((c) => [c.join(), c])).values()];
}

/** Groups that want a bus each and have too few between them; null when none are found by count alone. */
function busClash(p: Problem): ProblemNeed[] | null {
  const names = new Map<string, number>();
  const busesOf = new Map<number, number[]>();
  p.groups.forEach((_, g) => {
    const each = p.needs.filter((n) => n.group === g).map((n) => new Set(n.choices.map((c) => c.bus!)));
    const common = [...(each[0] ?? [])].filter((b) => each.every((s) => s.has(b)));
    for (const b of common) if (!names.has(b)) names.set(b, names.size);
    // A group without needs wants nothing.
    if (each.length)
      busesOf.set(
        g,
        common.map((b) => names.get(b)!),
      );
  });
  for (const clique of cliques(p)) {
    const left = leftOver(
      clique.filter((g) => busesOf.has(g)),
      busesOf,
    );
    if (left) return p.needs.filter((n) => n.group !== null && left.includes(n.group));
  }
  return null;
}

/**
 * What can't fit by count alone: needs that want a pin each and have too few pins between them, or groups that can't share
 * a bus and have too few buses (a maximum matching, by augmenting paths). Without any one of these the rest has a place
 * each. Null when every need finds a pin and every group a bus; that does not mean that they fit together.
 */
export function countingClash(p: Problem): ProblemNeed[] | null {
  const alone = p.needs.find((n) => !n.choices.length);
  if (alone) return [alone];
  // Bus lines share their pins; everything else wants one of its own.
  const single = p.needs.flatMap((n, i) => (n.share === null ? [i] : []));
  const pinsOf = new Map(single.map((i) => [i, [...new Set(p.needs[i]!.choices.map((c) => c.pin))]]));
  const left = leftOver(single, pinsOf);
  return left ? left.map((i) => p.needs[i]!) : busClash(p);
}
