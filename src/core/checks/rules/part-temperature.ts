import { airOf, PLACES } from "../../project";
import { label } from "../help";
import type { Found, Rule } from "../types";

const C = (degrees: number) => `${String(degrees).replace("-", "−")} °C`;

export const partTemperature: Rule = {
  rule: "part.temperature",
  says: "A part works in the air that it is made for: outside of it displays go blank, sensors tell wrong things, motors bind.",
  check: (c) => {
    const air = airOf(c.project);
    const { short } = PLACES[c.project.brief.place];
    return [...c.netlist.expanded.instances.values()].flatMap((i): Found[] => {
      const made = i.part.air_C;
      if (!made || i.inserted) return [];
      const cold = air.min_C < made.min;
      const hot = air.max_C > made.max;
      if (!cold && !hot) return [];
      const when = cold && hot ? "frost and heat" : cold ? "frost" : "heat";
      return [
        {
          rule: "part.temperature",
          severity: "risk",
          at: [i.ref],
          message: `${label(c, i.ref)} is made for ${C(made.min)} to ${C(made.max)}. Where this lives (${short}) the air is between ${C(air.min_C)} and ${C(air.max_C)}: take one that stands ${when}, or keep it where it is ${cold ? "warmer" : "cooler"}.`,
          evidence: { coldest_C: air.min_C, warmest_C: air.max_C, made_from_C: made.min, made_to_C: made.max },
          rests: [{ ref: i.ref, path: "air_C", called: `the range of ${i.ref}` }],
          fixes: [],
        },
      ];
    });
  },
};
