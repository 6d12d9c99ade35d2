import type { NetElement } from "../netlist/types";
import type { Island } from "./islands";

/** How a signal comes from one net to another: the contacts that must be closed, and whether it passes more than resistors. */
export interface Reach {
  contacts: NetElement[];
  /** What else than a resistor is on the way, the first of it. */
  through: NetElement | null;
}

/** What a step costs: the way with the fewest contacts, then with the fewest junctions, is the one that is meant. */
const COST: Partial<Record<NetElement["kind"], number>> = {
  resistor: 1,
  fet: 50,
  diode: 100,
  led: 100,
  contact: 10_000,
};

/** Every net of an island that a signal at `start` comes to through resistors, contacts, junctions and channels, `start` included. */
export function reachOf(island: Island, start: string): Map<string, Reach> {
  const at = new Map<string, NetElement[]>();
  for (const e of island.elements)
    if (COST[e.kind] !== undefined && !(e.kind === "resistor" && e.internal))
      for (const id of new Set([e.a, e.b])) at.set(id, [...(at.get(id) ?? []), e]);
  const inside = new Set(island.nets);
  const best = new Map<string, Reach & { cost: number }>([[start, { contacts: [], through: null, cost: 0 }]]);
  const open = new Set([start]);
  const done = new Set<string>();
  while (open.size) {
    const here = [...open].reduce((a, b) => (best.get(b)!.cost < best.get(a)!.cost ? b : a));
    open.delete(here);
    done.add(here);
    const way = best.get(here)!;
    for (const e of at.get(here) ?? []) {
      const next = e.a === here ? e.b : e.a;
      if (!inside.has(next) || done.has(next)) continue;
      const cost = way.cost + COST[e.kind]!;
      if (cost >= (best.get(next)?.cost ?? Infinity)) continue;
      best.set(next, {
        cost,
        contacts: e.kind === "contact" ? [...way.contacts, e] : way.contacts,
        through: way.through ?? (e.kind === "resistor" ? null : e),
      });
      open.add(next);
    }
  }
  return best;
}
