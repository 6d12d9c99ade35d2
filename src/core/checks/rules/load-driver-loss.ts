import { evaluate, formatV } from "../../quantity";
import { label, round } from "../help";
import type { Found, Rule } from "../types";

/** With less than this share of its voltage a motor turns weakly and a coil may not pull. */
const ENOUGH = 0.75;

/** What a driver keeps for itself before its load gets the rest. */
export const driverLoss: Rule = {
  rule: "load.driver-loss",
  says: "A driver keeps volts for itself, more with more current: the load gets the rest, and the driver the heat.",
  check: (c) =>
    [...c.solved.flows.values()].flatMap((f): Found[] => {
      const el = f.element;
      const { end } = f.from;
      if (el.kind !== "load" || el.module || el.def?.kind !== "load" || !el.A?.typ || end.kind !== "pin") return [];
      const inst = c.netlist.instance(el.ref)!;
      const [least, usual] = [evaluate(el.def.V.min, inst.vars), evaluate(el.def.V.typ, inst.vars)];
      const gets = (f.A.typ / el.A.typ) * usual;
      const from = end.driver.high.typ;
      // A pin of the board itself is told to take a driver.
      if (end.driver.host || gets >= Math.max(least, usual * ENOUGH) || gets < 0.01) return [];
      const W = (from - gets) * f.A.typ;
      return [
        {
          rule: "load.driver-loss",
          severity: "risk",
          at: [el.ref, end.driver.key],
          message: `${label(c, end.driver.ref)} keeps ${formatV(from - gets)} of ${formatV(from)} for itself: ${label(c, el.ref)} gets ${formatV(gets)} and is made for ${formatV(usual)}. ${W.toFixed(1)} W go into the driver as heat. Raise its supply, or take a driver with MOSFETs.`,
          evidence: { gets_V: round(gets), made_for_V: round(usual), lost_V: round(from - gets), heat_W: round(W, 2) },
          fixes: [],
        },
      ];
    }),
};
