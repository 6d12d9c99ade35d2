import { openPins } from "../../plan/assign";
import { label, linkedRefs } from "../help";
import type { Found, Rule } from "../types";

export const partUnwired: Rule = {
  rule: "part.unwired",
  says: "A part in the list that no wire reaches yet.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst): Found[] => {
      if (inst.inserted || inst.part.board || inst.part.id.startsWith("supply/") || inst.part.pins.length < 2)
        return [];
      if (linkedRefs(c.project).has(inst.ref)) return [];
      const open = openPins(c.project, c.netlist, inst).length;
      return [
        {
          rule: "part.unwired",
          severity: "note",
          at: [inst.ref],
          message: `${label(c, inst.ref)} is in the list but not planned yet${open ? `: ${open} pins to plan` : ""}.`,
          evidence: { open },
          fixes: [],
        },
      ];
    }),
};
