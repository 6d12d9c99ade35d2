import { formatV } from "../../quantity";
import { logicSupplyFix } from "../supply-fixes";
import type { Found, Rule } from "../types";
import { at, pinOf, evidence, lowRests, bufferFix, worst, gradeOf, whenWords } from "../level-pairs";

export const highLow: Rule = {
  rule: "level.high-low",
  says: "A driver's guaranteed low must stay under what the receiver takes as a low (VIL).",
  check: (c) =>
    worst(
      c.levels.filter((v) => v.marginLow < 0),
      (v) => v.marginLow,
    ).map((v): Found => ({
      rule: "level.high-low",
      severity: gradeOf(c, v, v.usualLow),
      at: at(v),
      message: `${pinOf(v.driver)} pulls down to ${formatV(v.low_V)} only, but ${pinOf(v.receiver)} needs ${formatV(v.VIL)} or less for a low${whenWords(c, v, v.usualLow)}.`,
      evidence: evidence(v),
      rests: lowRests(c, v),
      fixes: () => [...bufferFix(c, v), ...logicSupplyFix(c, v.receiver.ref)],
    })),
};
