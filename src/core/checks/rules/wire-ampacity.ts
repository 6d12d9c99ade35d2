import { gaugeFor, JUMPER_A, supplyWires } from "../../circuit/power";
import { houseRule, splitEnd } from "../../project";
import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";
import { gaugeFix } from "../wires";

export const wireAmpacity: Rule = {
  rule: "wire.ampacity",
  says: "A wire gets warm with the square of its current; jumpers and the springs of a breadboard stand about 1 A.",
  check: (c) =>
    supplyWires(c.netlist, c.power).flatMap((w): Found[] => {
      const ref = splitEnd(w.to).ref;
      const thin = w.chosen && w.peak_A > w.limit_A;
      const usual = !w.chosen && w.peak_A > JUMPER_A;
      if (!thin && !usual) return [];
      const awg = gaugeFor(w.peak_A, w.cm, c.netlist.netOf(w.from)?.V?.typ ?? 5);
      const bread = houseRule(c.project, "firstBuild") === "breadboard";
      return [
        {
          rule: "wire.ampacity",
          severity: thin ? (w.typ_A > w.limit_A ? "stop" : "risk") : "note",
          at: [w.from.replace(/:.*/, ""), w.to],
          message: thin
            ? `The supply wire to ${label(c, ref)} carries up to ${mA(w.peak_A)}; ${w.awg} AWG stands ${mA(w.limit_A)}.`
            : `The supply wire to ${label(c, ref)} carries up to ${mA(w.peak_A)}: take ${awg} AWG, no jumper${bread ? " and no breadboard rail" : ""}.`,
          evidence: {
            peak_mA: round(w.peak_A * 1000, 0),
            limit_mA: round((thin ? w.limit_A : JUMPER_A) * 1000, 0),
            gauge: `${w.awg} AWG`,
          },
          fixes: () => (thin ? gaugeFix(ref, awg) : []),
        },
      ];
    }),
};
