import { label, mA } from "../help";
import { ROOMY } from "../supply-fixes";
import type { Found, Rule } from "../types";
import { others, top, loadEvidence, overloadFixes } from "../power";

/** Parts that take less than this of a limit are not what makes it tight. */
const OTHERS_SHARE = 0.1;

export const powerTight: Rule = {
  rule: "power.tight",
  says: "Over 80 % of a limit leaves no room for what was not counted.",
  check: (c) =>
    c.power.limits
      .filter((l) => l.flow.peak <= l.limit_A * 1.0001 && l.flow.peak > l.limit_A * ROOMY)
      // What a board draws by itself is its maker's affair; what hangs on it beside is ours.
      .filter((l) => others(c, l) > l.limit_A * OTHERS_SHARE)
      // A part that was capped to fit a limit is at that limit on purpose.
      .filter(
        (l) =>
          !l.loads.some((x) => (c.netlist.instance(x.ref)?.vars.brightness ?? 1) < 1 && x.flow.peak > l.flow.peak / 2),
      )
      .map((l): Found => ({
        rule: "power.tight",
        severity: "risk",
        at: [l.ref],
        message: `${label(c, l.ref)}, ${l.says}: ${mA(l.flow.peak)} at peak is ${Math.round((l.flow.peak / l.limit_A) * 100)} % of its ${mA(l.limit_A)} (${top(l, c)}).`,
        evidence: loadEvidence(l),
        fixes: () => overloadFixes(c, l, ROOMY),
      })),
};
