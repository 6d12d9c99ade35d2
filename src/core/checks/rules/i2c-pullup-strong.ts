import type { Circuit } from "../../circuit";
import { i2cBuses, type I2cBus } from "../../circuit/buses";
import { formatOhm } from "../../quantity";
import { label, round } from "../help";
import type { Found, Fix, Rule } from "../types";
import { sdaOf } from "../i2c";

export const i2cPullupStrong: Rule = {
  rule: "i2c.pullup-strong",
  says: "All pull-ups of a bus in parallel must not ask more than 3 mA of the part that pulls low.",
  check: (c) =>
    i2cBuses(c).flatMap((b): Found[] => {
      if (!b.pulls.length || b.ohm >= b.window.min_ohm) return [];
      return [
        {
          rule: "i2c.pullup-strong",
          severity: "risk",
          at: sdaOf(b),
          message: `${b.pulls.length} pull-ups in parallel make ${formatOhm(b.ohm)}; at ${b.V.toFixed(1)} V the bus wants at least ${formatOhm(b.window.min_ohm)}. Take some modules' pull-ups off.`,
          evidence: { parallel_ohm: round(b.ohm, 0), least_ohm: round(b.window.min_ohm, 0) },
          fixes: () => [...ownPullsOff(c, b)],
        },
      ];
    }),
};

/** Pull-ups that the plan itself added are the first to go. */
function ownPullsOff(c: Circuit, b: I2cBus): Fix[] {
  const by = b.pulls.map((p) => c.netlist.instance(p.ref)?.inserted).find((x) => x?.key === "pullUp");
  return by
    ? [
        {
          id: "pulls-off",
          label: `Take the added pull-ups of ${label(c, by.by)} out`,
          edits: [{ type: "setCompanion", ref: by.by, key: "pullUp", value: null }],
        },
      ]
    : [];
}
