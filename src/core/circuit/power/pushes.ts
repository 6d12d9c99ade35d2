import { evaluate } from "../../quantity";
import type { Netlist } from "../netlist";
import { sourcesOn, type SourceAt } from "./at";
import { feedsOf } from "./tree";

/** A source whose current can reach another source. */
export interface Push {
  from: SourceAt;
  into: SourceAt;
  /** The most that arrives there, volts, and the least that the other one has itself. */
  arrives_V: number;
  meets_V: number;
  /** Nothing but wires and fuses lies between: the two are one rail. */
  joined: boolean;
}

interface Edge {
  to: string;
  drop: number;
  plain: boolean;
}

/**
 * Which sources can push current into which others: along wires, fuses and closed switches either way, through diodes one
 * way. Regulators are left out: they give and do not take. A push counts where its highest voltage less the diodes'
 * lowest drops is above what the other source may have at its lowest.
 */
export function pushes(n: Netlist): Push[] {
  const edges = new Map<string, Edge[]>();
  const put = (from: string, e: Edge) => edges.set(from, [...(edges.get(from) ?? []), e]);
  for (const f of feedsOf(n)) {
    const { kind, drop_V } = f.converter;
    if (kind !== "wire" && kind !== "fuse" && kind !== "diode") continue;
    const drop = kind === "diode" && drop_V ? evaluate(drop_V.min, n.instance(f.ref)?.vars) : 0;
    put(f.from, { to: f.to, drop, plain: kind !== "diode" });
    if (kind !== "diode") put(f.to, { to: f.from, drop: 0, plain: true });
  }
  const value = (s: SourceAt, end: "min" | "max") => evaluate(s.source.V[end], s.inst.vars);
  const out: Push[] = [];
  for (const net of n.nets) {
    if (net.kind !== "supply") continue;
    for (const from of sourcesOn(n, net)) {
      const seen = new Set([net.id]);
      const queue = [{ id: net.id, drop: 0, plain: true }];
      for (const here of queue) {
        const there = n.nets.find((x) => x.id === here.id);
        for (const into of there ? sourcesOn(n, there) : []) {
          const arrives_V = value(from, "max") - here.drop;
          const meets_V = value(into, "min");
          if (into.ref !== from.ref && arrives_V > meets_V)
            out.push({ from, into, arrives_V, meets_V, joined: here.plain });
        }
        for (const e of edges.get(here.id) ?? []) {
          if (seen.has(e.to)) continue;
          seen.add(e.to);
          queue.push({ id: e.to, drop: here.drop + e.drop, plain: here.plain && e.plain });
        }
      }
    }
  }
  return out;
}
