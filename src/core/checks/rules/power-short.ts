import type { Net } from "../../circuit/netlist";
import { label } from "../help";
import type { Found, Rule } from "../types";
import { swapped } from "../power";

export const powerShort: Rule = {
  rule: "power.short",
  says: "A supply must never be joined to ground.",
  check: (c) => {
    // A one-wire sensor's supply pin belongs at ground when the data wire feeds it: `onewire.parasitic` speaks of that.
    const shorted = (n: Net) =>
      n.nodes.filter((x) => x.supply && !c.netlist.instance(x.ref)!.part.groups.some((g) => g.kind === "onewire"));
    return c.netlist.nets
      .filter((n) => n.kind === "ground" && shorted(n).length > 0 && !swapped(c, n))
      .map((n): Found => {
        const supply = shorted(n)[0]!;
        const refs = new Set(shorted(n).map((x) => x.ref));
        const bad = c.project.links.filter((l) => {
          const roles = [l.from, l.to].map(
            (e) => c.netlist.netOf(e)?.ends.find((x) => `${x.ref}.${x.pin}` === e)?.def.role,
          );
          return roles.includes("ground") && roles.some((r) => r?.startsWith("supply-"));
        });
        return {
          rule: "power.short",
          severity: "stop",
          at: bad.length ? bad.flatMap((l) => [l.from, l.to]) : [...refs],
          message: `The supply ${supply.supply} of ${label(c, supply.ref)} is joined to ground: a short circuit. Do not power this.`,
          evidence: { supply: `${supply.ref}:${supply.supply}` },
          fixes: bad.map((l) => ({
            id: `remove-${l.from}-${l.to}`,
            label: `Take out the wire from ${l.from} to ${l.to}`,
            edits: [{ type: "removeLink", from: l.from, to: l.to }],
          })),
        };
      });
  },
};
