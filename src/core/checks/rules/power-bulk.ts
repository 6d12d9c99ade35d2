import type { Circuit } from "../../circuit";
import { formatSI } from "../../quantity";
import { elementsAt, netById, otherEnd } from "../graph";
import { label, round } from "../help";
import type { Found, Rule } from "../types";
import { wanting, capacitorFix } from "../capacitors";

/** Capacitance between a supply net and ground, farads, of capacitors of at least `least`. */
const capacitance = (c: Circuit, net: string, least = 0) =>
  elementsAt(c, net)
    .filter((e) => e.kind === "capacitor" && netById(c, otherEnd(e, net))?.kind === "ground" && (e.F ?? 0) >= least)
    .reduce((s, e) => s + (e.F ?? 0), 0);

/** From here on the part moves so much current that it does not work well without; a radio's bursts are as hard. */
const LARGE_F = 1e-4;

/** Half of what is asked still does most of it. */
const ENOUGH = 0.5;

export const powerBulk: Rule = {
  rule: "power.bulk",
  says: "Strips, motors and radios draw in bursts: a large capacitor beside them bridges what the wires can't bring fast enough.",
  check: (c) =>
    wanting(c, "bulkCapacitor").flatMap(({ inst, rule, net, F }): Found[] => {
      const there = capacitance(c, net.id);
      if (there >= F * ENOUGH) return [];
      return [
        {
          rule: "power.bulk",
          severity: rule.needed === "required" || F >= LARGE_F || inst.part.tags.includes("radio") ? "risk" : "note",
          at: [inst.ref],
          message: `${label(c, inst.ref)} wants about ${formatSI(F, "F")} across its supply: ${rule.because}. There ${there ? `is ${formatSI(there, "F")}` : "is none"}.`,
          evidence: { wanted_uF: round(F * 1e6, 1), there_uF: round(there * 1e6, 1) },
          fixes: () => capacitorFix(c, inst.ref, "bulkCapacitor"),
        },
      ];
    }),
};
