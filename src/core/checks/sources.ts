/** For the rules: where sources meet. */
import type { Circuit } from "../circuit";
import { pushes, sourcesOn, type Push, type SourceAt } from "../circuit/power";
import { evaluate } from "../quantity";
import type { Net } from "../circuit/netlist";

export const SAME_V = 0.3;

/** Rails that differ by more than this are not the same rail. */
export const CLASH_V = 0.5;

export const typ = (s: SourceAt) => evaluate(s.source.V.typ, s.inst.vars);

/** Pairs of sources of which one or both can push into the other. */
export function meetings(c: Circuit): { a: SourceAt; b: SourceAt; list: Push[] }[] {
  const pairs = new Map<string, Push[]>();
  for (const p of pushes(c.netlist)) {
    const key = [p.from.ref, p.into.ref].sort().join(" ");
    pairs.set(key, [...(pairs.get(key) ?? []), p]);
  }
  return [...pairs.values()].map((list) => ({ a: list[0]!.from, b: list[0]!.into, list }));
}

export const clash = (m: { a: SourceAt; b: SourceAt; list: Push[] }) =>
  m.list.some((p) => p.joined) && Math.abs(typ(m.a) - typ(m.b)) > SAME_V;

/** Supply nets on which outputs of different voltages meet. */
export function clashingNets(c: Circuit): { net: Net; refs: string[]; lo: number; hi: number }[] {
  return c.netlist.nets.flatMap((net) => {
    if (net.kind !== "supply") return [];
    const outputs = net.nodes.flatMap((n) => {
      const inst = c.netlist.instance(n.ref);
      const k = inst?.part.converters.find((x) => x.to === n.supply && (x.kind === "linear" || x.kind === "switching"));
      return inst && k?.V ? [{ ref: n.ref, V: evaluate(k.V.typ, inst.vars) }] : [];
    });
    // A diode is no joint: what it lets through is judged as two sources.
    const passed = net.nodes.flatMap((n) => {
      const inst = c.netlist.instance(n.ref);
      const k = inst?.part.converters.find((x) => x.to === n.supply && (x.kind === "wire" || x.kind === "fuse"));
      const from = k && c.netlist.netOf(`${n.ref}:${k.from}`);
      return from && from !== net && from.V ? [{ ref: n.ref, V: from.V.typ }] : [];
    });
    const sources = sourcesOn(c.netlist, net).map((s) => ({ ref: s.ref, V: typ(s) }));
    const all = [...outputs, ...passed, ...sources];
    const [lo, hi] = [Math.min(...all.map((x) => x.V)), Math.max(...all.map((x) => x.V))];
    return all.length > 1 && hi - lo > CLASH_V ? [{ net, refs: [...new Set(all.map((x) => x.ref))], lo, hi }] : [];
  });
}
