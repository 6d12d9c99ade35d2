import type { Circuit } from "../../circuit";
import { i2cBuses } from "../../circuit/buses";
import { nextUp, formatOhm } from "../../quantity";
import type { Net } from "../../circuit/netlist";
import { elementsAt, netById, otherEnd } from "../graph";
import type { Found, Rule } from "../types";
import { names } from "../i2c";

/** Resistors of a net to supplies, fed or not: a pull-up to a dead rail is the dead rail's finding, not a missing pull-up. */
const pullsToAny = (c: Circuit, net: Net) =>
  elementsAt(c, net.id).some((e) => e.kind === "resistor" && netById(c, otherEnd(e, net.id))?.kind === "supply");

export const i2cPullupMissing: Rule = {
  rule: "i2c.pullup-missing",
  says: "I2C lines are only ever pulled low by the parts: without a pull-up nothing makes them high.",
  check: (c) =>
    i2cBuses(c).flatMap((b): Found[] => {
      const first = b.members[0]!;
      const lines: [string, Net][] = [
        ["SDA", b.sda],
        ["SCL", b.scl],
      ];
      const bare = lines.filter(([, net]) => !pullsToAny(c, net));
      if (!bare.length) return [];
      const own = nextUp(Math.max(b.window.min_ohm * 1.3, 2200), "E12", c.project.drawer.resistors_ohm);
      const ohm = b.window.max_ohm >= 4700 ? 4700 : own;
      return [
        {
          rule: "i2c.pullup-missing",
          severity: "fault",
          at: b.members.map((m) => `${m.ref}.${bare[0]![0]}`),
          message: `${bare.map(([n]) => n).join(" and ")} of the bus with ${names(c, b.members)} ${bare.length > 1 ? "have" : "has"} no pull-up resistor to a supply.`,
          evidence: { lines: bare.map(([n]) => n).join("+") },
          fixes: [
            {
              id: "pull-up",
              label: `Add ${formatOhm(ohm)} pull-ups to the board's logic voltage`,
              edits: [{ type: "setCompanion", ref: first.ref, key: "pullUp", value: { ohm } }],
            },
          ],
        },
      ];
    }),
};
