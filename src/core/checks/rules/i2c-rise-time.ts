import { i2cBuses } from "../../circuit/buses";
import { nextDown } from "../../circuit/formulas";
import { formatOhm, formatSI } from "../../quantity";
import { round } from "../help";
import type { Found, Rule } from "../types";
import { sdaOf, setClock } from "../i2c";

/** The resistors themselves add a little to the line. */
const ROOM = 0.9;

export const i2cRiseTime: Rule = {
  rule: "i2c.rise-time",
  says: "The pull-up must charge the whole line in time: t = 0.8473 · R · C (UM10204: 1000, 300 or 120 ns).",
  check: (c) =>
    i2cBuses(c).flatMap((b): Found[] => {
      if (!b.pulls.length || b.rise_s <= b.rise_max_s || b.load.total_F > 400e-12) return [];
      // What must stand beside the pull-ups that are there, so that all in parallel come under the limit.
      const beside = 1 / (1 / (b.window.max_ohm * ROOM) - 1 / b.ohm);
      const ohm = beside > 0 ? nextDown(beside, c.project.drawer.resistors_ohm) : 0;
      const parallel = ohm ? 1 / (1 / ohm + 1 / b.ohm) : 0;
      const slower = b.clock_Hz > 100_000 && b.rise_s <= 1000e-9;
      return [
        {
          rule: "i2c.rise-time",
          severity: "risk",
          at: sdaOf(b),
          message: `${formatOhm(b.ohm)} and ${formatSI(b.load.total_F, "F")} let the lines rise in ${formatSI(b.rise_s, "s")}; at ${b.clock_Hz / 1000} kHz they may take ${formatSI(b.rise_max_s, "s")}.`,
          evidence: {
            pullup_ohm: round(b.ohm, 0),
            line_pF: round(b.load.total_F * 1e12, 0),
            rise_ns: round(b.rise_s * 1e9, 0),
            most_ns: round(b.rise_max_s * 1e9, 0),
          },
          fixes: [
            ...(ohm && parallel >= b.window.min_ohm
              ? [
                  {
                    id: "stronger",
                    label: `Add ${formatOhm(ohm)} pull-ups: ${formatOhm(parallel)} in all`,
                    edits: [
                      { type: "setCompanion" as const, ref: b.members[0]!.ref, key: "pullUp" as const, value: { ohm } },
                    ],
                  },
                ]
              : []),
            ...(slower ? setClock(b, 100_000, "Run the bus at 100 kHz") : []),
          ],
        },
      ];
    }),
};
