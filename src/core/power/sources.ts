import type { Instance, Net, Netlist } from "../netlist";
import type { Supply } from "../catalogue";
import type { PowerReport } from "./tree";

/** A source on a net: its part and the data of what it gives. */
export interface SourceAt {
  ref: string;
  inst: Instance;
  supply: Supply;
  source: NonNullable<Supply["source"]>;
}

/** Every source that sits on a net; more than one is a finding of its own. */
export function sourcesOn(n: Netlist, net: Net): SourceAt[] {
  return net.nodes.flatMap((node) => {
    const inst = n.instance(node.ref);
    const supply = node.supply ? inst?.part.supplies[node.supply] : undefined;
    return inst && supply?.source ? [{ ref: node.ref, inst, supply, source: supply.source }] : [];
  });
}

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

/** The parts between a source and a rail, from the rail upward: `["B1", "S1"]`. */
export function pathTo(n: Netlist, power: PowerReport, netId: string): string[] {
  const up = new Map(power.stages.map((s) => [s.to, s]));
  const out: string[] = [];
  let at: string | undefined = netId;
  while (at && out.length < 20) {
    const s = up.get(at);
    if (!s) break;
    if (out.at(-1) !== s.ref) out.push(s.ref);
    at = s.from;
  }
  const root = at ? n.nets.find((x) => x.id === at) : undefined;
  const source = root && sourcesOn(n, root)[0];
  return source ? [...out, source.ref] : out;
}
