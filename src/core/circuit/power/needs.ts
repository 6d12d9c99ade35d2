import { evaluate } from "../../quantity";
import type { Netlist } from "../netlist";
import type { PowerReport } from "./tree";

/**
 * The lowest voltage, volts, at which everything below a supply net still gets what it wants: the highest lower limit of
 * the parts on it, and of what its regulators and diodes feed, each with its drop-out or drop on top. Zero when nothing
 * asks. Step-up and step-up-down converters ask for their own input range only.
 */
export function lowestNeeded(n: Netlist, power: PowerReport, netId: string): { V: number; by: string | null } {
  const net = n.nets.find((x) => x.id === netId);
  let least: { V: number; by: string | null } = { V: 0, by: null };
  const ask = (V: number, by: string) => {
    if (V > least.V) least = { V, by };
  };
  if (!net) return least;
  const stages = power.stages.filter((s) => s.from === netId && s.to !== netId);
  for (const node of net.nodes) {
    const inst = n.instance(node.ref);
    const s = node.supply ? inst?.part.supplies[node.supply] : undefined;
    if (!inst || !s || s.source) continue;
    // A rail that only passes power on is judged by what hangs on it, a regulator's input by its range.
    const passes = stages.some((x) => x.ref === node.ref);
    const regulates = stages.some((x) => x.ref === node.ref && x.converter.kind === "switching");
    if (s.mA || (passes && regulates)) ask(evaluate(s.V.min, inst.vars), node.ref);
  }
  for (const s of stages) {
    const below = lowestNeeded(n, power, s.to);
    const c = s.converter;
    const vars = n.instance(s.ref)?.vars;
    if (c.kind === "switching" && c.dropout_V === undefined) continue;
    const drop = c.dropout_V ?? (c.drop_V ? evaluate(c.drop_V.max, vars) : 0);
    if (below.V) ask(below.V + drop, below.by ?? s.ref);
  }
  return least;
}
