import { findPin } from "../../parts/catalogue";
import type { Circuit } from "../../circuit";
import type { Net } from "../../circuit/netlist";
import { label } from "../help";
import type { Found, Fix, Rule } from "../types";

/** SPI parts that share a data-out line: each must let go of it when it is not selected. */
export const spiMisoHeld: Rule = {
  rule: "spi.miso-held",
  says: "A part that keeps driving the shared data line when it is not selected drowns out the others.",
  check: (c) => {
    const lines = new Map<Net, { ref: string; pin: string; holds: boolean }[]>();
    for (const inst of c.netlist.expanded.instances.values())
      for (const g of inst.part.groups) {
        if (g.kind !== "spi" || !g.pins.miso) continue;
        const net = c.netlist.netOf(`${inst.ref}.${g.pins.miso}`);
        if (net.ends.length < 2) continue;
        lines.set(net, [...(lines.get(net) ?? []), { ref: inst.ref, pin: g.pins.miso, holds: g.holdsData ?? false }]);
      }
    return [...lines.values()].flatMap((list): Found[] => {
      const holders = list.filter((m) => m.holds);
      if (list.length < 2 || !holders.length) return [];
      const rest = list.filter((m) => !m.holds).map((m) => label(c, m.ref));
      return [
        {
          rule: "spi.miso-held",
          severity: "fault",
          at: holders.map((m) => `${m.ref}.${m.pin}`),
          message: `${holders.map((m) => label(c, m.ref)).join(" and ")} ${holders.length > 1 ? "keep" : "keeps"} driving the data line when not selected, and ${rest.join(", ") || "the others"} can't be heard. Give it a bus of its own, or a part that lets go.`,
          evidence: { members: list.length, holders: holders.length },
          fixes: () => holders.flatMap((m) => dropMiso(c, m.ref, m.pin)),
        },
      ];
    });
  },
};

/** A display is only written to: its data-out may stay open. */
function dropMiso(c: Circuit, ref: string, pin: string): Fix[] {
  const def = findPin(c.netlist.instance(ref)!.part, pin);
  const links = c.project.links.filter((l) => l.from === `${ref}.${pin}` || l.to === `${ref}.${pin}`);
  return def?.need?.optional && links.length
    ? [
        {
          id: "drop-data-out",
          label: `Leave ${ref}.${pin} open: ${label(c, ref)} is only written to`,
          edits: links.map((l) => ({ type: "removeLink" as const, from: l.from, to: l.to })),
        },
      ]
    : [];
}
