import { elementsAt, netById, otherEnd } from "../graph";
import { rootOf } from "../../circuit/power";
import { evaluate, formatSI } from "../../quantity";
import { label, mA, round } from "../help";
import type { Finding, Rule } from "../types";

/** Smaller capacitors are full before a contact minds, farads. */
const LARGE_F = 220e-6;
/** Wires, contact and capacitor together, ohms. */
const WAY_OHM = 0.15;
/** A contact stands so many times its rating for the instant that a capacitor takes. */
const INSTANT = 10;

/** A switch that closes onto a large empty capacitor: for an instant only the wires limit the current. */
export const inrush: Rule = {
  rule: "power.inrush",
  says: "An empty capacitor is a short for an instant: a switch in front of a large one welds, and a weak source drops out.",
  check: (c) =>
    c.power.stages.flatMap((s): Finding[] => {
      const contact = c.netlist.elements.find((e) => e.ref === s.ref && e.kind === "contact");
      const net = netById(c, s.to);
      const def = contact?.def?.kind === "contact" ? contact.def : undefined;
      if (!contact || !net?.V) return [];
      const F = elementsAt(c, net.id)
        .filter((e) => e.kind === "capacitor" && netById(c, otherEnd(e, net.id))?.kind === "ground")
        .reduce((sum, e) => sum + (e.F ?? 0), 0);
      const root = rootOf(c.netlist, c.power, s.from)?.source;
      const ohm = WAY_OHM + (root?.source.rint_ohm ? evaluate(root.source.rint_ohm, root.inst.vars) : 0);
      const A = net.V.max / ohm;
      const most = ((def?.max_mA ?? 50) / 1000) * INSTANT;
      if (F < LARGE_F || A <= most) return [];
      return [
        {
          rule: "power.inrush",
          severity: "risk",
          at: [s.ref, net.name],
          message: `${label(c, s.ref)} closes onto ${formatSI(F, "F")} of empty capacitor: for an instant about ${mA(A)} flows, and its contact stands ${mA(most)} for that long. Take a stronger switch, or put the capacitor before the switch.`,
          evidence: { instant_A: round(A, 1), stands_A: round(most, 1), capacitor_uF: round(F * 1e6, 0) },
          fixes: [],
        },
      ];
    }),
};
