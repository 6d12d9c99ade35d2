import { sourcesOn } from "../../circuit/power";
import { formatV } from "../../quantity";
import { label, round } from "../help";
import type { Found, Rule } from "../types";

export const powerPolarity: Rule = {
  rule: "power.polarity",
  says: "Plugs and loose wires are not always what their colours say: measure plus and minus before anything is joined.",
  check: (c) =>
    c.netlist.nets.flatMap((net) =>
      net.kind !== "supply" || net.nodes.length < 2
        ? []
        : sourcesOn(c.netlist, net).flatMap((s): Found[] => {
            if (s.inst.part.pins.some((p) => p.role === "cable")) return [];
            return [
              {
                rule: "power.polarity",
                severity: "note",
                at: [s.ref],
                message: `Check ${label(c, s.ref)} with a meter before it is joined: ${formatV(net.V?.typ ?? 0)}${s.source.plug ? `, ${s.source.plug}` : ""}.`,
                evidence: { wants_V: round(net.V?.typ ?? 0) },
                fixes: [],
              },
            ];
          }),
    ),
};
