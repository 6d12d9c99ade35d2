import { fetStage } from "../../circuit/formulas";
import { formatV } from "../../quantity";
import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";
import { type SwitchAt, bareHeat, switchesOf, railOf, fetFor, swapFix, swapFixBjt } from "../loads";

/** Heat in a switch at the lasting current, and what its case gets rid of, watts. */
function lastingHeat(s: SwitchAt): { W: number; most: number } {
  const A = s.loads.reduce((sum, l) => sum + l.A.typ, 0);
  if (s.def.kind === "bjt") return { W: A * s.def.VCEsat_V, most: s.def.Ptot_mW / 1000 };
  const stage = s.gate && fetStage({ V: s.gate.V, on: s.def.on, load_A: A, pin_A: 1 });
  return { W: stage?.W ?? 0, most: bareHeat(s.def) };
}

export const loadSwitchLimit: Rule = {
  rule: "load.switch-limit",
  says: "A transistor has a largest current, a largest voltage, and a heat that its case gets rid of.",
  check: (c) =>
    switchesOf(c).flatMap((s): Found[] => {
      if (!s.peak_A) return [];
      const most = (s.def.kind === "bjt" ? s.def.Ic_mA : s.def.Id_mA) / 1000;
      const top = railOf(c, s.loads);
      const Vmax = s.def.kind === "bjt" ? s.def.Vceo : s.def.Vds;
      const heat = lastingHeat(s);
      const over = s.peak_A > most || top > Vmax;
      if (!over && heat.W <= heat.most) return [];
      const what =
        s.peak_A > most
          ? `${mA(s.peak_A)} over a limit of ${mA(most)}`
          : top > Vmax
            ? `${formatV(top)} over a limit of ${formatV(Vmax)}`
            : `${heat.W.toFixed(2)} W of heat; ${heat.most} W is what it gets rid of${s.def.kind === "fet" ? " without a heat sink" : ""}`;
      const better = s.gate ? fetFor(c, s.gate.V, s.peak_A, top) : null;
      return [
        {
          rule: "load.switch-limit",
          // A heat sink helps a MOSFET; nothing helps a transistor past its rating.
          severity: over || s.def.kind === "bjt" ? "stop" : "risk",
          at: [s.el.ref, ...s.loads.map((l) => l.el.ref)],
          message: `${label(c, s.el.ref)} would have to carry ${what} for ${s.loads.map((l) => label(c, l.el.ref)).join(", ")}. Take a stronger one.`,
          evidence: {
            load_mA: round(s.peak_A * 1000, 1),
            limit_mA: round(most * 1000, 0),
            supply_V: round(top),
            limit_V: Vmax,
            heat_W: round(heat.W, 2),
          },
          fixes: () =>
            better && s.def.kind === "fet" ? swapFix(c, s, better) : better ? swapFixBjt(c, s, better) : [],
        },
      ];
    }),
};
