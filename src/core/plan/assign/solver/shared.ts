import type { Problem, Use } from "../problem";

/** A choice that takes no shared resource sets its need free. */
interface Asking {
  need: number;
  /** What each allowed choice takes. */
  ways: Use[][];
}

function asking(p: Problem, start: Int32Array, banned: Uint8Array): Asking[] {
  const out: Asking[] = [];
  p.needs.forEach((n, need) => {
    if (n.share) return;
    const ways: Use[][] = [];
    for (let k = 0; k < n.choices.length; k++) {
      if (banned[start[need]! + k]) continue;
      const { uses } = n.choices[k]!;
      if (!uses.length) return;
      ways.push(uses);
    }
    out.push({ need, ways });
  });
  return out;
}

/** Kuhn's matching of askers to places that take several each; false when somebody stays without. */
function allServed(asks: string[][], room: ReadonlyMap<string, number>): boolean {
  const sitting = new Map<string, number[]>();
  const seat = (a: number, seen: Set<string>): boolean => {
    for (const place of asks[a]!) {
      if (seen.has(place)) continue;
      seen.add(place);
      const there = sitting.get(place) ?? [];
      if (there.length < (room.get(place) ?? 1)) {
        sitting.set(place, [...there, a]);
        return true;
      }
      for (const other of there)
        if (seat(other, seen)) {
          sitting.set(place, [...(sitting.get(place) ?? []).filter((x) => x !== other), a]);
          return true;
        }
    }
    return false;
  };
  return asks.every((_, a) => seat(a, new Set()));
}

/**
 * Pigeonholes over timers and the like: whether the needs that can't do without them could get a slot each, a resource
 * with room each, and whether every mode could get a resource to itself. False proves that nothing fits; true proves nothing.
 */
export function enoughShared(p: Problem, start: Int32Array, banned: Uint8Array): boolean {
  const list = asking(p, start, banned);
  if (!list.length) return true;
  const names = (a: Asking, name: (u: Use) => string) => [...new Set(a.ways.flatMap((w) => w.map(name)))];
  const slots = list.map((a) => names(a, (u) => (u.slot === null ? `any ${u.resource}` : `${u.resource}|${u.slot}`)));
  const endless = new Map(p.resources.map((_, i) => [`any ${i}`, Infinity]));
  if (!allServed(slots, endless)) return false;
  const room = new Map(p.resources.map((r, i) => [String(i), r.most]));
  if (
    !allServed(
      list.map((a) => names(a, (u) => String(u.resource))),
      room,
    )
  )
    return false;
  const modes = new Map<string, Set<string>>();
  for (const a of list) {
    const mine = new Set(a.ways.flatMap((w) => w.map((u) => u.mode)));
    if (mine.size !== 1) continue;
    const [mode] = mine;
    const at = new Set(a.ways.flatMap((w) => w.map((u) => String(u.resource))));
    const known = modes.get(mode!);
    // Where all needs of a mode could be is not needed: the narrowest of them is enough.
    if (!known || at.size < known.size) modes.set(mode!, at);
  }
  const held = new Map(p.resources.map((r, i) => [String(i), r.modes]));
  return allServed(
    [...modes.values()].map((s) => [...s]),
    held,
  );
}
