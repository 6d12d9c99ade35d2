import { count } from "../../quantity/count";
import { sourcesOn } from "../../circuit/power";
import { netById } from "../graph";
import { evaluate } from "../../quantity";
import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";

const HOURS_A_DAY = 24;
/** Of the printed charge, so much a worn cell really gives. */
const WORN = 0.75;

const span = (days: number) =>
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
      const Ah = evaluate(s.source.capacity_mAh, s.inst.vars) / 1000;
      const days = (Ah * WORN) / l.flow.idle / HOURS_A_DAY;
      const most = [...l.loads].sort((a, b) => b.flow.idle - a.flow.idle)[0];
      return [
        {
          rule: "power.sleep",
          severity: "note",
          at: [l.ref],
          message: `With everything idle ${label(c, l.ref)} still gives ${mA(l.flow.idle)}${most ? `, most of it to ${label(c, most.ref)} (${mA(most.flow.idle)})` : ""}: it is empty after about ${span(days)}, whatever the program does.`,
          evidence: { idle_mA: round(l.flow.idle * 1000, 2), days: round(days, 1) },
          fixes: [],
        },
      ];
    }),
};
