import { inCold, lowestNeeded, sourcesOn } from "../../circuit/power";
import { evaluate, formatV } from "../../quantity";
import { airOf } from "../../project";
import { netById } from "../graph";
import { label, mA, round } from "../help";
import { ownSupplyFix } from "../supply-fixes";
import type { Found, Rule } from "../types";

export const powerBrownout: Rule = {
  rule: "power.brownout",
  says: "A battery's voltage sags by its inner resistance times the current: at the peak it must still be enough.",
  check: (c) =>
    c.power.limits.flatMap((l): Found[] => {
      const net = netById(c, l.net);
      const s = net && sourcesOn(c.netlist, net)[0];
      const cold = airOf(c.project).min_C;
      const { times } = s?.source.chemistry ? inCold(s.source.chemistry, cold) : { times: 1 };
      const ohm = times * (s?.source.rint_ohm === undefined ? 0 : evaluate(s.source.rint_ohm, s.inst.vars));
      if (l.kind !== "source" || !net?.V || !s || !ohm || l.flow.peak > l.limit_A) return [];
      const need = lowestNeeded(c.netlist, c.power, l.net);
      const sag = l.flow.peak * ohm;
      // Where even the resting voltage is too low, the range or the drop-out speaks.
      if (!need.V || net.V.min < need.V || net.V.min - sag >= need.V) return [];
      return [
        {
          rule: "power.brownout",
          severity: "risk",
          at: [l.ref, ...(need.by ? [need.by] : [])],
          message: `At ${mA(l.flow.peak)} ${label(c, l.ref)} sags by ${formatV(sag)}${times > 1 ? ` at ${String(cold).replace("-", "−")} °C` : ""}: a nearly empty one gives ${formatV(net.V.min - sag)}, and ${need.by ? label(c, need.by) : "what hangs on it"} wants ${formatV(need.V)}. It restarts at the peak.`,
          evidence: {
            sag_V: round(sag),
            low_V: round(net.V.min - sag),
            wants_V: round(need.V),
            rint_ohm: round(ohm),
            air_C: cold,
          },
          fixes: l.loads
            .filter((x) => !c.netlist.instance(x.ref)?.part.board && x.flow.peak > 0.2)
            .slice(0, 1)
            .flatMap((x) => ownSupplyFix(c, x.ref)),
        },
      ];
    }),
};
