import type { Circuit } from "../../circuit";
import type { Net } from "../../circuit/netlist";
import { sourcesOn } from "../../circuit/power";
import { airOf, PLACES } from "../../project";
import { label } from "../help";
import type { Found, Rule } from "../types";

/** Air that cells are made for, °C: temperature ranges in data sheets of each kind, the narrower where they differ. */
const USED_C = {
  lithium: { min: -20, max: 60 },
  alkaline: { min: -18, max: 54 },
  nimh: { min: -20, max: 50 },
  lifepo4: { min: -20, max: 60 },
  lead: { min: -15, max: 50 },
  coin: { min: -20, max: 60 },
};
/** Kinds that a charger may fill where they live, and what happens to those that get too hot. */
const CHARGED = new Set(["lithium", "lifepo4", "nimh", "lead"]);
const BURNS = new Set(["lithium", "coin"]);

const CHARGED_C = { min: 0, max: 45 };

const C = (degrees: number) => `${String(degrees).replace("-", "−")} °C`;

const sourcesOfAll = (c: Circuit) =>
  c.netlist.nets.flatMap((net) => (net.kind === "supply" ? sourcesOn(c.netlist, net).map((s) => ({ ...s, net })) : []));

/** A module that charges the cell on this net, and so does it where the cell lives. */
const chargerOn = (c: Circuit, net: Net) =>
  net.nodes.find((n) => {
    const part = c.netlist.instance(n.ref)?.part;
    return part && !part.id.startsWith("supply/") && part.tags.includes("charger");
  })?.ref;

export const powerCellTemperature: Rule = {
  rule: "power.cell-temperature",
  says: "Cells have a range of their own: lithium is used up to 60 °C and charged between 0 and 45 °C, alkaline is used up to 54 °C.",
  check: (c) => {
    const air = airOf(c.project);
    const { short } = PLACES[c.project.brief.place];
    return sourcesOfAll(c).flatMap((s): Found[] => {
      const { chemistry } = s.source;
      if (!chemistry) return [];
      const used = USED_C[chemistry];
      const hot = air.max_C > used.max;
      const outside = CHARGED.has(chemistry) && (air.min_C < CHARGED_C.min || air.max_C > CHARGED_C.max);
      if (!hot && !outside) return [];
      const charger = outside ? chargerOn(c, s.net) : undefined;
      const words = [
        `Where this lives (${short}) the air is between ${C(air.min_C)} and ${C(air.max_C)}.`,
        hot &&
          `${label(c, s.ref)} must stay below ${C(used.max)}, or it ${BURNS.has(chemistry) ? "swells or burns" : "leaks"}: keep it out of the sun, or feed the build from outside.`,
        outside &&
          `${hot ? "It" : label(c, s.ref)} is charged between ${CHARGED_C.min} and ${C(CHARGED_C.max)} only${charger ? `: not by ${label(c, charger)} where it lives, but indoors and watched` : ", so indoors and watched"}.`,
      ];
      return [
        {
          rule: "power.cell-temperature",
          severity: hot || charger ? "risk" : "note",
          at: [s.ref, ...(charger ? [charger] : [])],
          message: words.filter(Boolean).join(" "),
          evidence: { coldest_C: air.min_C, warmest_C: air.max_C, used_to_C: used.max },
          fixes: [],
        },
      ];
    });
  },
};
