import type { Circuit } from "../../circuit";
import { JUNCTION_MAX_C, JUNCTION_WARM_C, stageHeat, type Stage } from "../../circuit/power";
import { airOf } from "../../project";
import { formatV } from "../../quantity";
import { netById } from "../graph";
import { label, mA, round } from "../help";
import { ownSupplyFix, regulatorFix } from "../supply-fixes";
import type { Found, Fix, Rule } from "../types";

/** A cooler way: the heaviest load below gets a supply of its own, or a lower one feeds the regulator. */
function coolerFixes(c: Circuit, s: Stage): Fix[] {
  const limit = c.power.limits.find((l) => l.id === `${s.ref}:${s.converter.from}>${s.converter.to}`);
  const heavy = limit?.loads.find((l) => !c.netlist.instance(l.ref)?.part.board && l.flow.typ > 0.05);
  return heavy ? [...ownSupplyFix(c, heavy.ref), ...regulatorFix(c, heavy.ref, s.to)] : [];
}

export const powerRegulatorHeat: Rule = {
  rule: "power.regulator-heat",
  says: "A linear regulator turns every volt that it takes away into heat: (Vin − Vout) times the current.",
  check: (c) => {
    const air = airOf(c.project).max_C;
    return c.power.stages.flatMap((s): Found[] => {
      const h = stageHeat(c.netlist, s, air);
      if (!h || s.converter.kind !== "linear" || h.junction_C <= JUNCTION_WARM_C) return [];
      const stop = h.junction_C > JUNCTION_MAX_C;
      const [vin, vout] = [netById(c, s.from)?.V, netById(c, s.to)?.V];
      return [
        {
          rule: "power.regulator-heat",
          severity: stop ? "stop" : "risk",
          at: [s.ref],
          message: `${label(c, s.ref)}, ${s.converter.says}: ${formatV(vin!.max)} down to ${formatV(vout!.typ)} at ${mA(s.out.typ)} makes ${h.typ_W.toFixed(2)} W and ${h.junction_C.toFixed(0)} °C inside, in air of ${air} °C${stop ? ": it shuts off or burns. Do not power this" : ": too hot to touch"}.`,
          evidence: {
            heat_W: round(h.typ_W, 2),
            junction_C: round(h.junction_C, 0),
            air_C: air,
            theta_C_per_W: h.theta_C_per_W,
            theta: h.assumed ? "assumed for its size" : "data sheet",
          },
          fixes: () => coolerFixes(c, s),
        },
      ];
    });
  },
};
