import { label, mA } from "../help";
import type { Found, Rule } from "../types";
import { top, loadEvidence, overloadFixes } from "../power";

export const powerOverload: Rule = {
  rule: "power.overload",
  says: "The peaks of everything that hangs on a source or regulator must fit its limit.",
  check: (c) =>
    c.power.limits
      .filter((l) => l.flow.peak > l.limit_A * 1.0001)
      .map((l): Found => ({
        rule: "power.overload",
        severity: l.flow.typ > l.limit_A ? "stop" : "fault",
        at: [l.ref, ...l.loads.slice(0, 3).map((x) => x.ref)],
        message: `${label(c, l.ref)}, ${l.says}: ${mA(l.flow.peak)} at peak over a limit of ${mA(l.limit_A)} (${top(l, c)}).`,
        evidence: loadEvidence(l),
        fixes: () => overloadFixes(c, l),
      })),
};
