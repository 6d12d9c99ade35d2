import { count } from "../../quantity/count";
import { span } from "../../quantity/span";
import { averageOf, sleeperOn, sourcesOn } from "../../circuit/power";
import { netById } from "../graph";
import { evaluate } from "../../quantity";
import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";

const HOURS_A_DAY = 24;
/** Of the printed charge, so much a worn cell really gives. */
const WORN = 0.75;

const inDays = (days: number) =>
  days >= 60
    ? count(Math.round(days / 30), "month")
    : days >= 2
      ? count(Math.round(days), "day")
      : count(Math.round(days * HOURS_A_DAY), "hour");

/** What the whole build draws while nothing happens, regulators and lights that are always on included. */
export const sleep: Rule = {
  rule: "power.sleep",
  says: "What a build draws asleep decides how long a cell lasts: regulators, power lights and sensors go on drawing.",
  check: (c) =>
    c.power.limits.flatMap((l): Found[] => {
      const net = netById(c, l.net);
      const s = net && sourcesOn(c.netlist, net)[0];
      if (l.kind !== "source" || !s?.source.capacity_mAh || !(l.flow.idle > 0)) return [];
      const rest = mA(l.flow.idle);
      const sleeps = sleeperOn(c.netlist, l.loads);
      const Ah = evaluate(s.source.capacity_mAh, s.inst.vars) / 1000;
      const daysAt = (A: number) => (Ah * WORN) / A / HOURS_A_DAY;
      if (sleeps) {
        const { awake_s, every_s } = sleeps.sleep;
        const average = averageOf(l.flow, awake_s / every_s);
        return [
          {
            rule: "power.sleep",
            severity: "note",
            at: [l.ref],
            message: `Awake for ${span(awake_s)} of every ${span(every_s)} and asleep otherwise (${rest}), ${label(c, l.ref)} gives ${mA(average)} on average: it is empty after about ${inDays(daysAt(average))}; never asleep after about ${inDays(daysAt(l.flow.typ))}.`,
            evidence: { average_mA: round(average * 1000, 2), days: round(daysAt(average), 1) },
            fixes: [],
          },
        ];
      }
      const days = daysAt(l.flow.idle);
      const most = [...l.loads].sort((a, b) => b.flow.idle - a.flow.idle)[0];
      return [
        {
          rule: "power.sleep",
          severity: "note",
          at: [l.ref],
          message: `With everything idle ${label(c, l.ref)} still gives ${rest}${most ? `, most of it to ${label(c, most.ref)} (${mA(most.flow.idle)})` : ""}: it is empty after about ${inDays(days)}, whatever the program does.`,
          evidence: { idle_mA: round(l.flow.idle * 1000, 2), days: round(days, 1) },
          fixes: [],
        },
      ];
    }),
};
