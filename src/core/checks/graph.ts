import type { Circuit } from "../circuit";
import type { Net, NetElement, Netlist } from "../circuit/netlist";

interface Graph {
  byId: Map<string, Net>;
  at: Map<string, NetElement[]>;
}
const memo = new WeakMap<Netlist, Graph>();

/** Nets by id and elements by the nets that they touch, made once for a circuit. */
export function graph(c: Circuit): Graph {
  const known = memo.get(c.netlist);
  if (known) return known;
  const at = new Map<string, NetElement[]>();
  for (const el of c.netlist.elements)
    for (const id of new Set([el.a, el.b, ...(el.control ? [el.control] : [])])) {
      const list = at.get(id);
      if (list) list.push(el);
      else at.set(id, [el]);
    }
  const made = { byId: new Map(c.netlist.nets.map((n) => [n.id, n])), at };
  memo.set(c.netlist, made);
  return made;
}

export const netById = (c: Circuit, id: string) => graph(c).byId.get(id);
export const elementsAt = (c: Circuit, id: string) => graph(c).at.get(id) ?? [];
export const otherEnd = (el: NetElement, id: string) => (el.a === id ? el.b : el.a);
export const isRail = (n: Net | undefined) => n?.kind === "supply" || n?.kind === "ground";

/** A resistor in a signal's way is at most this large; a pull is larger. */
const SERIES_MOST_OHM = 2200;

/** The input of a one-way buffer whose output is on a net, straight or behind a series resistor, as `REF.PIN`. */
function bufferBefore(c: Circuit, net: Net): string | undefined {
  const beside = elementsAt(c, net.id).flatMap((el) => {
    const far = el.kind === "resistor" && !el.internal && el.ohm! <= SERIES_MOST_OHM ? otherEnd(el, net.id) : undefined;
    return netById(c, far ?? "") ?? [];
  });
  return [net, ...beside]
    .filter((n) => !isRail(n))
    .flatMap((n) => n.ends)
    .flatMap((e) => {
      const channel = c.netlist.instance(e.ref)?.part.channels.find((x) => x.out === e.pin && !x.both);
      return channel && e.as === "driver" ? [`${e.ref}.${channel.in}`] : [];
    })[0];
}

/**
 * The net that really decides about an input while nothing drives it: behind a buffer a pull at the input itself does nothing,
 * since the buffer's output is stronger; the pull must stand at the buffer's own input. `by` is that input, `REF.PIN`.
 */
export function decidingNet(c: Circuit, ref: string, pin: string): { net: Net; by: string | null } {
  let net = c.netlist.netOf(`${ref}.${pin}`);
  let by: string | null = null;
  for (let step = 0; step < 4; step++) {
    const input = bufferBefore(c, net);
    if (!input) break;
    [net, by] = [c.netlist.netOf(input), input];
  }
  return { net, by };
}

/** The resistance between two nets when one resistor or a row of them joins them; 0 for one net, null for none. */
export function seriesOhm(c: Circuit, from: string, to: string): number | null {
  if (from === to) return 0;
  const seen = new Set([from]);
  const queue: { id: string; ohm: number }[] = [{ id: from, ohm: 0 }];
  for (const here of queue)
    for (const el of elementsAt(c, here.id)) {
      if (el.kind !== "resistor" || el.internal) continue;
      const next = otherEnd(el, here.id);
      const ohm = here.ohm + (el.ohm ?? 0);
      if (next === to) return ohm;
      if (seen.has(next) || isRail(netById(c, next))) continue;
      seen.add(next);
      queue.push({ id: next, ohm });
    }
  return null;
}
