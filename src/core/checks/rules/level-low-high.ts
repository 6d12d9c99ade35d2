import { formatV } from "../../quantity";
import { label, owner } from "../help";
import { logicSupplyFix } from "../supply-fixes";
import { twoWayFix } from "../two-way";
import type { Found, Rule } from "../types";
import { at, pinOf, evidence, highRests, bufferFix, isGate, worst, gradeOf, whenWords } from "../level-pairs";

export const lowHigh: Rule = {
  rule: "level.low-high",
  says: "A driver's guaranteed high must reach what the receiver needs to see a high (VIH).",
  check: (c) =>
    worst(
      c.levels.filter((v) => v.marginHigh < 0 && !isGate(c, v)),
      (v) => v.marginHigh,
    ).map((v): Found => ({
      rule: "level.low-high",
      severity: gradeOf(c, v, v.usualHigh),
      at: at(v),
      message: `${pinOf(v.driver)} gives at least ${formatV(v.high_V)} as a high, but ${pinOf(v.receiver)} (${label(c, owner(c, v.receiver.ref))}) needs ${formatV(v.VIH)}: ${formatV(-v.marginHigh)} short${whenWords(c, v, v.usualHigh)}.`,
      evidence: evidence(v),
      rests: highRests(c, v),
      fixes: [
        ...bufferFix(c, v),
        ...(v.driver.how === "pull-up" ? twoWayFix(c, v) : []),
        ...logicSupplyFix(c, v.receiver.ref),
      ],
    })),
};
