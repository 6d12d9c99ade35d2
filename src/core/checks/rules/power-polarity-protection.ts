import { sourcesOn } from "../../circuit/power";
import { label } from "../help";
import type { Found, Rule } from "../types";

/** A battery whose leads can be exchanged, and nothing in its way that would block it. */
export const polarityProtection: Rule = {
  rule: "power.polarity-protection",
  says: "A battery put in the wrong way round kills what hangs on it; a diode in its plus wire costs a few tenths of a volt and forgives it.",
  check: (c) =>
    c.netlist.nets.flatMap((net): Found[] => {
      if (net.kind !== "supply") return [];
      return sourcesOn(c.netlist, net).flatMap((s): Found[] => {
        if (!s.source.capacity_mAh || s.inst.part.pins.some((p) => p.role === "cable")) return [];
        const behind = c.power.stages.filter((x) => x.from === net.id);
        const direct = net.nodes.filter((x) => x.ref !== s.ref && x.supply);
        if (!direct.length || behind.some((x) => x.converter.kind === "diode")) return [];
        return [
          {
            rule: "power.polarity-protection",
            severity: "note",
            at: [s.ref, direct[0]!.ref],
            message: `Nothing protects ${label(c, direct[0]!.ref)} when ${label(c, s.ref)} is connected the wrong way round. Use a plug that fits one way only, or a diode in the plus wire.`,
            evidence: { source: s.ref },
            fixes: [],
          },
        ];
      });
    }),
};
