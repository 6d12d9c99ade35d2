/** For the rules: parts that stand the wrong way round. */
import type { Circuit } from "../circuit";
import type { Net } from "../circuit/netlist";
import { netById } from "./graph";

/** Diodes in a supply's wire that face the source: nothing gets through. */
export function blockers(c: Circuit) {
  return c.netlist.elements.flatMap((el) => {
    if (el.kind !== "diode") return [];
    const [a, k] = [netById(c, el.a), netById(c, el.b)];
    if (a?.kind !== "supply" || k?.kind !== "supply" || a.V || !k.V) return [];
    return a.nodes.some((n) => n.supply) ? [{ el, a, k }] : [];
  });
}

/** Supply nets that are dead because a diode before them faces the wrong way, regulators behind them included. */
export function blockedNets(c: Circuit): Set<string> {
  const out = new Set(blockers(c).map((x) => x.a.id));
  if (!out.size) return out;
  for (let grew = true; grew;) {
    grew = false;
    for (const inst of c.netlist.expanded.instances.values())
      for (const k of inst.part.converters) {
        const [from, to] = [c.netlist.netOf(`${inst.ref}:${k.from}`).id, c.netlist.netOf(`${inst.ref}:${k.to}`).id];
        if (out.has(from) && !out.has(to)) {
          out.add(to);
          grew = true;
        }
      }
  }
  return out;
}

/** Supplies and modules whose plus is at ground and whose ground is at the plus. */
export function swappedSupplies(c: Circuit): { ref: string; plus: string; minus: string }[] {
  return [...c.netlist.expanded.instances.values()].flatMap((inst) => {
    if (inst.inserted) return [];
    const plus = inst.part.pins.find(
      (p) => p.role.startsWith("supply-") && c.netlist.netOf(`${inst.ref}.${p.label}`).kind === "ground",
    );
    if (!plus) return [];
    const strange = (n: Net, own: (x: { supply?: string; ground?: string }) => unknown) =>
      n.nodes.some((x) => x.ref !== inst.ref && own(x));
    const atGround = c.netlist.netOf(`${inst.ref}.${plus.label}`);
    const minus = inst.part.pins.find(
      (p) =>
        p.role === "ground" &&
        c.netlist.netOf(`${inst.ref}.${p.label}`) !== atGround &&
        strange(c.netlist.netOf(`${inst.ref}.${p.label}`), (x) => x.supply),
    );
    return minus && strange(atGround, (x) => x.ground) ? [{ ref: inst.ref, plus: plus.label, minus: minus.label }] : [];
  });
}
