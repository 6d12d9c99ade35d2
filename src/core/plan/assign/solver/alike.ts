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
