import { sourcesOn } from "../../circuit/power";
import { label, mA } from "../help";
import type { Found, Rule } from "../types";

export const powerSun: Rule = {
  rule: "power.sun",
  says: "A solar panel gives a tenth under clouds and nothing at night: what must go on wants a cell that the panel charges.",
  check: (c) => {
    const stored = c.netlist.nets.some((n) => sourcesOn(c.netlist, n).some((s) => s.source.capacity_mAh !== undefined));
    return c.power.limits.flatMap((l): Found[] => {
      const inst = c.netlist.instance(l.ref);
      const panel = l.kind === "source" && Object.values(inst?.part.supplies ?? {}).some((s) => s.source?.sun);
      if (!panel || stored || !(l.flow.typ > 0)) return [];
      return [
        {
          rule: "power.sun",
          severity: "risk",
          at: [l.ref],
          message: `${label(c, l.ref)} is all that feeds this project (${mA(l.flow.typ)} usually): with every cloud it restarts, and at night it is off. Put a cell and a charger between them.`,
          evidence: { typical_mA: Number((l.flow.typ * 1000).toFixed(1)) },
          fixes: [],
        },
      ];
    });
  },
};
