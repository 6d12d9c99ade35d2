import type { Net, Netlist } from "../netlist";
import { sourcesOn, type SourceAt } from "./at";
import type { PowerReport } from "./tree";

interface Tree {
  byId: Map<string, Net>;
  up: Map<string, string>;
}
const trees = new WeakMap<PowerReport, Tree>();
function treeOf(n: Netlist, power: PowerReport): Tree {
  const known = trees.get(power);
  if (known) return known;
  const made = { byId: new Map(n.nets.map((x) => [x.id, x])), up: new Map(power.stages.map((s) => [s.to, s.from])) };
  trees.set(power, made);
  return made;
}

/** The net of the source that feeds a supply net, up through its regulators; null when nothing does. */
export function rootOf(n: Netlist, power: PowerReport, netId: string): { net: Net; source: SourceAt } | null {
  const { byId, up } = treeOf(n, power);
  let at = netId;
  for (let step = 0; step < 20; step++) {
    const net = byId.get(at);
    const source = net && sourcesOn(n, net)[0];
    if (net && source) return { net, source };
    const next = up.get(at);
    if (!next) return null;
    at = next;
  }
  return null;
}
