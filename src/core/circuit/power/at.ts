import type { Supply } from "../../parts/catalogue";
import type { Instance, Net, Netlist } from "../netlist";

/** A source on a net: its part and the data of what it gives. */
export interface SourceAt {
  ref: string;
  inst: Instance;
  supply: Supply;
  source: NonNullable<Supply["source"]>;
}

const known = new WeakMap<Net, SourceAt[]>();

/** Every source that sits on a net; more than one is a finding of its own. Remembered by the net. */
export function sourcesOn(n: Netlist, net: Net): readonly SourceAt[] {
  const there = known.get(net);
  if (there) return there;
  const found = net.nodes.flatMap((node) => {
    const inst = n.instance(node.ref);
    const supply = node.supply ? inst?.part.supplies[node.supply] : undefined;
    return inst && supply?.source ? [{ ref: node.ref, inst, supply, source: supply.source }] : [];
  });
  known.set(net, found);
  return found;
}
