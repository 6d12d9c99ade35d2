import type { Problem } from "../problem";

/** Pins that only this bus offers, in printed order; null when some other bus or a plain need could take one, too. */
function ownPins(p: Problem, bus: string): number[] | null {
  const mine = new Set<number>();
  for (const n of p.needs) for (const c of n.choices) if (c.bus === bus) mine.add(c.pin);
  for (const n of p.needs) for (const c of n.choices) if (c.bus !== bus && mine.has(c.pin)) return null;
  for (const o of p.orders) for (const a of o.anchors) if (a.some((pin) => mine.has(pin))) return null;
  return [...mine].sort((a, b) => a - b);
}

/** What a bus looks like to every need, with its pins by their place; null when it can't be compared. */
function look(p: Problem, bus: string): string | null {
  const pins = ownPins(p, bus);
  if (!pins?.length) return null;
  const ways = p.needs.map((n) =>
    n.choices
      .filter((c) => c.bus === bus)
      .map((c) => [pins.indexOf(c.pin), c.cost, c.uses])
      .sort((a, b) => (a[0] as number) - (b[0] as number)),
  );
  return JSON.stringify([p.under[bus] ?? -1, pins.map((pin) => p.pins[pin]!.header), ways]);
}

/**
 * Buses that are the same but for their name, such as the empty channels of a multiplexer: a class for each, by index into
 * `buses`. Whoever goes onto an untouched one may as well go onto the first. Buses that are like no other have a class alone.
 */
export function alikeBuses(p: Problem, buses: readonly string[]): number[] {
  const known = new Map<string, number>();
  return buses.map((b, i) => {
    const key = look(p, b);
    if (key === null) return i;
    if (!known.has(key)) known.set(key, i);
    return known.get(key)!;
  });
}

const clashesOf = (p: Problem, g: number): number[] =>
  p.clashes.flatMap(([a, b]) => (a === g ? [b] : b === g ? [a] : [])).sort((a, b) => a - b);

const choicesOf = (p: Problem, n: number) => p.needs[n]!.choices.map((c) => [c.pin, c.bus, c.cost, c.uses]);

/**
 * Groups that are alike in every choice and clash with one another: any swap of their buses is the same plan. To each group the
 * nearest such one before it, or -1. `isAlone`: the group's part asks for nothing else.
 */
export function twinGroups(p: Problem, isAlone: (g: number) => boolean): number[] {
  const looks = p.groups.map((_, g) =>
    JSON.stringify(p.needs.flatMap((n, i) => (n.group === g ? [choicesOf(p, i)] : []))),
  );
  return looks.map((look, g) => {
    const clash = clashesOf(p, g);
    for (let h = g - 1; h >= 0; h--)
      if (looks[h] === look && look !== "[]" && clash.includes(h) && isAlone(g) && isAlone(h)) return h;
    return -1;
  });
}

/**
 * Parts of several needs (lists of their indices) that look the same to every pin, each with its likes: any swap of their pins is
 * the same plan. A part with a row of lines, or with channels that hang on it, is like no other.
 */
export function twinParts(p: Problem, parts: readonly number[][]): number[][] {
  const carriers = new Set(Object.values(p.under));
  const inRows = new Set(p.orders.flatMap((o) => (o.anchors.length ? o.needs : [])));
  const looks = parts.map((list) => {
    const groups = list.map((n) => p.needs[n]!.group);
    if (list.some((n) => inRows.has(n)) || groups.some((g) => g !== null && carriers.has(g))) return null;
    return JSON.stringify(
      list.map((n, k) => [p.needs[n]!.share, groups[k] === null ? null : clashesOf(p, groups[k]!), choicesOf(p, n)]),
    );
  });
  return looks.map((l, k) => looks.flatMap((m, j) => (l !== null && m === l && j !== k ? [j] : [])));
}
