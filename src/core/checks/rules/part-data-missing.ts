import { label } from "../help";
import type { Found, Rule } from "../types";

export const partDataMissing: Rule = {
  rule: "part.data-missing",
  says: "Without a part's input thresholds nobody can say whether a signal reaches them.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst): Found[] => {
      const silent = inst.part.pins.filter((p) => {
        const l = p.level ? inst.part.levels[p.level] : undefined;
        const listens = p.io === "in" || p.io === "bidir" || p.io === "open-drain";
        const silent = listens && l?.VIH === undefined && (l?.input === "cmos" || l?.input === "ttl");
        return silent && c.netlist.bindings.some((b) => b.ref === inst.ref && b.pin === p.label);
      });
      if (!silent.length) return [];
      return [
        {
          rule: "part.data-missing",
          severity: "note",
          at: silent.map((p) => `${inst.ref}.${p.label}`),
          message: `The data of ${label(c, inst.ref)} gives no thresholds (VIH, VIL) for ${silent.map((p) => p.label).join(", ")}: whether the board's levels reach them is not judged.`,
          evidence: { pins: silent.length },
          fixes: [],
        },
      ];
    }),
};
