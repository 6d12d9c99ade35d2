import { isAnchored } from "../netlist/build";
import type { Net, NetElement, NetEnd, Netlist } from "../netlist/types";
import type { Feed } from "../power/tree";

/** A piece of the circuit between rails: nets whose volts follow from each other, and what stands between them. */
export interface Island {
  /** Net ids that are not held; single-ended ones included. */
  nets: string[];
  elements: NetElement[];
  /** Pins with a level of their own on these nets. */
  ends: { net: string; end: NetEnd }[];
}

/** Element terminals that carry current or decide about it. */
export const terminals = (e: NetElement): string[] => [e.a, e.b, ...(e.control ? [e.control] : [])];

/** Nets whose voltage is known beforehand: fed supplies, and grounds that something stands on. */
export function heldNets(n: Netlist): Map<string, Net> {
  const out = new Map<string, Net>();
  const grounds = n.nets.filter((x) => x.kind === "ground");
  const anchored = grounds.filter((x) => isAnchored(n.expanded, x));
  for (const net of n.nets) {
    if (net.kind === "supply" && net.V) out.set(net.id, net);
    // In a project without any source every ground is as good as the next.
    if (net.kind === "ground" && (!anchored.length || anchored.includes(net))) out.set(net.id, net);
  }
  return out;
}

/** Splits the circuit at the rails; `feeds` says what is fed through what. Elements between rails only come back as islands without nets. */
export function islandsOf(n: Netlist, held: ReadonlyMap<string, Net>, feeds: ReadonlyMap<string, Feed>): Island[] {
  const byId = new Map(n.nets.map((x) => [x.id, x]));
  const at = new Map<string, NetElement[]>();
  // A switch or fuse that a rail is fed through, and a diode between two supplies, belong to the supply tree.
  const supply = (id: string) => held.get(id)?.kind === "supply";
  const feeding = (e: NetElement) =>
    (e.kind === "diode" && supply(e.a) && supply(e.b)) ||
    [feeds.get(e.a), feeds.get(e.b)].some(
      (f) => f && f.ref === e.ref && [f.from, f.to].every((x) => x === e.a || x === e.b),
    );
  const elements = n.elements.filter((e) => new Set(terminals(e)).size > 1 && e.kind !== "capacitor" && !feeding(e));
  for (const e of elements)
    for (const id of new Set(terminals(e))) {
      const list = at.get(id);
      if (list) list.push(e);
      else at.set(id, [e]);
    }
  const seen = new Set<string>();
  const used = new Set<NetElement>();
  const out: Island[] = [];
  const starts = [...n.nets.filter((x) => x.kind !== "ground").map((x) => x.id), ...at.keys()];
  for (const start of starts) {
    if (held.has(start) || seen.has(start)) continue;
    const nets = [start];
    seen.add(start);
    const mine: NetElement[] = [];
    for (const id of nets)
      for (const e of at.get(id) ?? []) {
        if (!used.has(e)) {
          used.add(e);
          mine.push(e);
        }
        for (const next of terminals(e))
          if (!held.has(next) && !seen.has(next)) {
            seen.add(next);
            nets.push(next);
          }
      }
    const ends = nets.flatMap((id) => (byId.get(id)?.ends ?? []).map((end) => ({ net: id, end })));
    out.push({ nets, elements: mine, ends: ends.filter((x) => x.end.def.level) });
  }
  for (const e of elements) if (!used.has(e)) out.push({ nets: [], elements: [e], ends: [] });
  return out;
}
