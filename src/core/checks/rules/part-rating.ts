import { evaluate, formatOhm, formatV } from "../../quantity";
import { label, mA, round } from "../help";
import { netById } from "../graph";
import type { Found, Rule } from "../types";

/** Resistors of a usual assortment, watts; twice that is gone in seconds. */
const RESISTOR_W = 0.25;
const BURNS = 2;

const grade = (share: number): Found["severity"] => (share > BURNS ? "stop" : "risk");

/** Heat in resistors, volts over capacitors, current through diodes: each against what the part is made for. */
export const partRating: Rule = {
  rule: "part.rating",
  says: "Resistors stand a quarter of a watt, capacitors their printed volts, diodes their rated current.",
  check: (c) =>
    c.netlist.elements.flatMap((e): Found[] => {
      const f = c.solved.flows.get(e);
      if (e.kind === "resistor" && f && !e.internal && c.netlist.instance(e.ref)?.part.id === "discrete/resistor") {
        const ohm = e.ohm! * (1 + (e.tolerance ?? 0));
        const W = f.A.typ * f.A.worst * ohm;
        if (W <= RESISTOR_W) return [];
        return [
          {
            rule: "part.rating",
            severity: grade(W / RESISTOR_W),
            at: [e.ref],
            message: `${label(c, e.ref)}, ${formatOhm(e.ohm!)}, carries ${mA(f.A.worst)} and has to get rid of ${W.toFixed(2)} W; a usual one stands ${RESISTOR_W} W. Take a larger value or a stronger resistor.`,
            evidence: { heat_W: round(W, 2), rated_W: RESISTOR_W, worst_mA: round(f.A.worst * 1000, 1) },
            fixes: [],
          },
        ];
      }
      if (e.kind === "capacitor" && e.def?.kind === "capacitor" && e.def.max_V !== undefined) {
        const most = evaluate(e.def.max_V, c.netlist.instance(e.ref)!.vars);
        const volts = (id: string) => netById(c, id)?.V ?? null;
        const [a, b] = [volts(e.a), volts(e.b)];
        const V = a && b ? Math.abs(a.max - b.min) : 0;
        if (V <= most) return [];
        return [
          {
            rule: "part.rating",
            severity: V > most * 1.2 ? "stop" : "risk",
            at: [e.ref],
            message: `${label(c, e.ref)} is made for ${formatV(most)} and stands at up to ${formatV(V)}: it can burst. Take one for a higher voltage.`,
            evidence: { across_V: round(V), rated_V: most },
            fixes: [],
          },
        ];
      }
      if (e.kind === "diode" && f && e.max_A && f.A.worst > e.max_A * 1.001 && f.A.typ < 20)
        return [
          {
            rule: "part.rating",
            severity: grade(f.A.worst / e.max_A),
            at: [e.ref],
            message: `${label(c, e.ref)} would carry ${mA(f.A.worst)}; it is made for ${mA(e.max_A)}.`,
            evidence: { worst_mA: round(f.A.worst * 1000, 0), rated_mA: round(e.max_A * 1000, 0) },
            fixes: [],
          },
        ];
      return [];
    }),
};
