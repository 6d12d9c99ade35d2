import { evaluate } from "../../quantity";
import { label } from "../help";
import type { Found, Rule } from "../types";

/** A light chain's data line: the first piece wants a few hundred ohms in it. */
export const ledDataResistor: Rule = {
  rule: "led.data-resistor",
  says: "300 to 500 Ω in the wire to the first data-in keep the sharp edges from ringing and the strip's input alive.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      const inst = c.netlist.instance(b.ref)!;
      const rule = inst.part.companions.find(
        (x) => x.key === "seriesResistor" && x.pin === b.pin && x.needed === "recommended",
      );
      const entry = c.project.parts.find((p) => p.ref === b.ref);
      if (!rule || !entry || b.chainedAfter || !b.direct || entry.companions?.seriesResistor === null) return [];
      if (!inst.part.groups.some((g) => g.kind === "chain")) return [];
      const ohm = evaluate(rule.ohm ?? 330, inst.vars);
      return [
        {
          rule: "led.data-resistor",
          severity: "note",
          at: [`${b.ref}.${b.pin}`],
          message: `The data wire into ${label(c, b.ref)} has no resistor: ${rule.because}.`,
          evidence: { wanted_ohm: ohm },
          fixes: [
            {
              id: "series-resistor",
              label: `Put ${ohm} Ω in the data wire`,
              edits: [{ type: "setCompanion", ref: b.ref, key: "seriesResistor", value: { ohm } }],
            },
          ],
        },
      ];
    }),
};
