import { formatV } from "../../quantity";
import { netById } from "../graph";
import { label, round } from "../help";
import type { Found, Rule } from "../types";
import { loadsOf } from "../loads";

/** Loads whose supply voltage is not what they are made for. */
export const loadVoltage: Rule = {
  rule: "load.voltage",
  says: "A motor, coil or lamp is made for a voltage: far less and it does not move, far more and it burns.",
  check: (c) =>
    loadsOf(c).flatMap((l): Found[] => {
      const rails = [l.el.a, l.el.b].flatMap((id) => {
        const n = netById(c, id);
        return n?.kind === "supply" && n.V ? [n] : [];
      });
      const V = rails[0]?.V;
      if (!V || rails.length !== 1) return [];
      const over = V.min > l.V.max;
      if (!over && V.max >= l.V.min) return [];
      return [
        {
          rule: "load.voltage",
          severity: over ? "stop" : "fault",
          at: [l.el.ref],
          message: `${label(c, l.el.ref)} is made for ${formatV(l.V.min)} to ${formatV(l.V.max)} and hangs at ${formatV(V.typ)}.`,
          evidence: { supply_V: round(V.typ), min_V: round(l.V.min), max_V: round(l.V.max) },
          fixes: [],
        },
      ];
    }),
};
