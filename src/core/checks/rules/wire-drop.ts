import { DROP_SHARE, DROP_V, gaugeFor, supplyWires } from "../../circuit/power";
import { splitEnd } from "../../project";
import { formatV } from "../../quantity";
import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";
import { gaugeFix } from "../wires";

export const wireDrop: Rule = {
  rule: "wire.drop",
  says: "A wire has resistance, there and back: what it takes is missing at the far end.",
  check: (c) =>
    supplyWires(c.netlist, c.power).flatMap((w): Found[] => {
      const V = c.netlist.netOf(w.from)?.V?.typ ?? 5;
      const most = Math.max(DROP_V, V * DROP_SHARE);
      if (w.drop_V <= most) return [];
      const ref = splitEnd(w.to).ref;
      return [
        {
          rule: "wire.drop",
          severity: "risk",
          at: [w.to],
          message: `${w.cm} cm of ${w.awg} AWG there and back take ${formatV(w.drop_V)} from the ${V.toFixed(1)} V for ${label(c, ref)} at ${mA(w.peak_A)}.`,
          evidence: { drop_V: round(w.drop_V), most_V: round(most), length_cm: w.cm, gauge: `${w.awg} AWG` },
          fixes: () => gaugeFix(ref, gaugeFor(w.peak_A, w.cm, V)),
        },
      ];
    }),
};
