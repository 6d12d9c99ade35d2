import { BETA_MAX, bjtAt, bjtStage } from "../../circuit/formulas";
import { formatOhm } from "../../quantity";
import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";
import { switchesOf, isFollower, triple, fetFor, railOf, swapFixBjt } from "../loads";

export const loadBaseDrive: Rule = {
  rule: "load.base-drive",
  says: "A transistor is a closed switch only with enough base current: a tenth to a twentieth of what it carries.",
  check: (c) =>
    switchesOf(c).flatMap((s): Found[] => {
      if (s.def.kind !== "bjt" || s.def.type !== "npn" || !s.gate || s.peak_A === 0) return [];
      if (s.loads.some((l) => isFollower(c, s, l)) || s.gate.series === 0) return [];
      const sure = bjtAt({ hFE_min: s.def.hFE_min, Vbe: triple(s.def.Vbe, {}), at: s.def.at }, s.peak_A);
      const ask = { V: s.gate.V, Vbe: sure.Vbe, pin_ohm: s.gate.ohm };
      const Ib = Math.max(0, s.gate.drive.base_A.min);
      const beta = Ib > 0 ? s.peak_A / Ib : Infinity;
      const most = s.def.saturated ?? BETA_MAX;
      if (beta <= Math.min(most, sure.hFE_min)) return [];
      const fault = beta > sure.hFE_min;
      const stage = bjtStage({
        ...ask,
        hFE_min: sure.hFE_min,
        VCEsat_V: s.def.VCEsat_V,
        saturated: most,
        load_A: s.peak_A,
      });
      const limit = c.netlist.level(s.gate.ref, s.gate.pin)?.pin_mA?.recommended ?? 8;
      const fits = stage && stage.pin_A * 1000 <= limit && c.project.parts.some((p) => p.ref === s.el.ref);
      const fet = fetFor(c, s.gate.V, s.peak_A, railOf(c, s.loads));
      return [
        {
          rule: "load.base-drive",
          severity: fault ? "fault" : "risk",
          at: [s.el.ref, `${s.gate.ref}.${s.gate.pin}`],
          message: `${label(c, s.el.ref)} carries ${mA(s.peak_A)} and gets ${mA(Ib)} of base current, ${beta === Infinity ? "nothing" : `1 to ${Math.round(beta)}`}; ${fault ? `its gain is only sure to be ${sure.hFE_min}, so it would not switch on` : s.def.saturated ? `up to 1 to ${most} keeps it fully on` : "1 to 10 to 20 keeps it fully on"}.`,
          evidence: {
            load_mA: round(s.peak_A * 1000, 1),
            base_mA: round(Ib * 1000, 2),
            forced_gain: Number.isFinite(beta) ? round(beta, 1) : "none",
          },
          fixes: [
            ...(fits
              ? [
                  {
                    id: "base-resistor",
                    label: `Take ${formatOhm(stage.ohm)} at the base: ${mA(stage.pin_A)} from the pin`,
                    edits: [
                      {
                        type: "setCompanion" as const,
                        ref: s.el.ref,
                        key: "seriesResistor" as const,
                        value: { ohm: stage.ohm },
                      },
                    ],
                  },
                ]
              : []),
            ...(!fits && fet ? swapFixBjt(c, s, fet) : []),
          ],
        },
      ];
    }),
};
