import type { Circuit } from "../circuit";

/** A grid of the project with the pair of lines, and the board pins, of each key or light. */
export interface GridAddresses {
  ref: string;
  name: string;
  rows: { name: string; a: string; b: string; pins: string }[];
}

/** Address tables of every part that is made of many alike ones on common lines. */
export function gridAddressTables(c: Circuit): GridAddresses[] {
  return [...c.netlist.expanded.instances.values()].flatMap((i): GridAddresses[] => {
    if (!i.part.addresses) return [];
    const at = (label: string) => {
      const b = c.netlist.bindings.find((x) => x.ref === i.ref && x.pin === label);
      return b ? (b.host === i.host ? b.hostPin : `${b.host}.${b.hostPin}`) : "open";
    };
    return [
      {
        ref: i.ref,
        name: i.label === i.ref ? i.part.name : i.label,
        rows: i.part.addresses.map((x) => ({ ...x, pins: `${at(x.a)} and ${at(x.b)}` })),
      },
    ];
  });
}
