import type { Supply } from "../../parts/catalogue";
import type { Instance, Net, Netlist } from "../netlist";

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
