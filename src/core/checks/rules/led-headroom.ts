import { label, round } from "../help";
import type { Found, Rule } from "../types";

/** Less than this over the resistor and the current hangs on the light's own scatter. */
const HEADROOM_V = 0.5;

const HEADROOM_SHARE = 0.2;

export const ledHeadroom: Rule = {
  rule: "led.headroom",
  says: "A series resistor sets the current only when enough voltage is left for it: a fifth of the supply, half a volt at least.",
  check: (c) =>
    c.leds.flatMap((p): Found[] => {
      if (!p.V || p.V.typ <= 0 || p.R === 0 || !p.I) return [];
      const left = p.V.typ - p.Vf.typ;
      const least = Math.max(HEADROOM_V, p.V.typ * HEADROOM_SHARE);
      if (left >= least) return [];
      return [
        {
          rule: "led.headroom",
          severity: "risk",
          at: [p.ref],
          message: `${p.V.typ.toFixed(1)} V less ${p.Vf.typ.toFixed(1)} V of ${p.leds.length > 1 ? `${p.leds.length} lights in a row` : label(c, p.ref)} leaves ${Math.max(0, left).toFixed(2)} V for the resistor: brightness differs from piece to piece, or it stays dark.`,
          evidence: { left_V: round(left), wanted_V: round(least), supply_V: round(p.V.typ), Vf_V: round(p.Vf.typ) },
          fixes: [],
        },
      ];
    }),
};
