import { label } from "../help";
import type { Found, Rule } from "../types";

export const companionNotPlanned: Rule = {
  rule: "companion.not-planned",
  says: "A loose part that the project asks for and that could not be placed.",
  check: (c) =>
    c.netlist.expanded.unplaced.map(({ ref, key }): Found => ({
      rule: "companion.not-planned",
      severity: "risk",
      at: [ref],
      message: `${label(c, ref)} asks for "${key}", which can't be placed with the values given; it is not in the wiring.`,
      evidence: { key },
      fixes: [{ id: "drop", label: `Take "${key}" out again`, edits: [{ type: "setCompanion", ref, key }] }],
    })),
};
