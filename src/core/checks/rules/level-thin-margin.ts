import type { LevelVerdict } from "../../circuit/solve";
import { houseRule } from "../../project";
import { formatV } from "../../quantity";
import { logicSupplyFix } from "../supply-fixes";
import type { Found, Rule } from "../types";
import { THIN_MARGIN_V, at, pinOf, evidence, highRests, lowRests, bufferFix, isGate, worst } from "../level-pairs";

export const thinMargin: Rule = {
  rule: "level.thin-margin",
  says: `Less than ${THIN_MARGIN_V} V between what a driver guarantees and what the receiver needs leaves no room for noise.`,
  check: (c) => {
    const strict = houseRule(c.project, "levelPolicy") === "same-nominal";
    const isThin = (v: LevelVerdict) =>
      v.marginHigh >= 0 && v.marginLow >= 0 && Math.min(v.marginHigh, v.marginLow) < THIN_MARGIN_V;
    const differs = (v: LevelVerdict) =>
      strict &&
      v.marginHigh >= 0 &&
      v.marginLow >= 0 &&
      Math.abs(v.driver.V.typ - v.receiver.V.typ) > 0.25 &&
      v.driver.net === v.receiver.net;
    return worst(
      c.levels.filter((v) => (isThin(v) || differs(v)) && !isGate(c, v)),
      (v) => Math.min(v.marginHigh, v.marginLow),
    ).map((v): Found => {
      const high = v.marginHigh <= v.marginLow;
      const message = isThin(v)
        ? `Only ${formatV(Math.min(v.marginHigh, v.marginLow))} of margin: ${pinOf(v.driver)} guarantees ${formatV(high ? v.high_V : v.low_V)}, ${pinOf(v.receiver)} needs ${formatV(high ? v.VIH : v.VIL)} for a ${high ? "high" : "low"}.`
        : `${pinOf(v.driver)} works at ${v.driver.V.typ.toFixed(1)} V and ${pinOf(v.receiver)} at ${v.receiver.V.typ.toFixed(1)} V; the house rule asks for the same voltage on both sides.`;
      return {
        rule: "level.thin-margin",
        severity: "risk",
        at: at(v),
        message,
        evidence: evidence(v),
        rests: v.marginHigh <= v.marginLow ? highRests(c, v) : lowRests(c, v),
        fixes: () => [...bufferFix(c, v), ...logicSupplyFix(c, v.receiver.ref)],
      };
    });
  },
};
