import { awgAmpacity, JUMPER_AWG, sourcesOn } from "../../circuit/power";
import { evaluate, formatV } from "../../quantity";
import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";

/** So many times what a wire carries for long, and its insulation melts within seconds. */
const MELTS = 10;

/** What a cell gives into a short, against what a jumper wire stands. */
export const shortCurrent: Rule = {
  rule: "wire.short-current",
  says: "A cell gives far more into a short than thin wires stand: a fuse or its own protection must be faster than the fire.",
  check: (c) =>
    c.netlist.nets.flatMap((net): Found[] => {
      if (net.kind !== "supply" || net.nodes.length + net.ends.length < 3) return [];
      return sourcesOn(c.netlist, net).flatMap((s): Found[] => {
        if (s.source.rint_ohm === undefined || s.source.capacity_mAh === undefined) return [];
        const A = evaluate(s.source.V.max, s.inst.vars) / Math.max(evaluate(s.source.rint_ohm, s.inst.vars), 0.01);
        const most = awgAmpacity(JUMPER_AWG) * MELTS;
        const fused = c.power.stages.some((x) => x.from === net.id && x.converter.kind === "fuse");
        if (A <= most || fused) return [];
        return [
          {
            rule: "wire.short-current",
            severity: "note",
            at: [s.ref],
            message: `${label(c, s.ref)} (${formatV(net.V?.typ ?? 0)}) gives about ${mA(A)} into a short; a jumper wire stands ${mA(awgAmpacity(JUMPER_AWG))}. Use a cell with protection or put a fuse right at its plus, and never let the two leads touch.`,
            evidence: { short_A: round(A, 0), wire_A: awgAmpacity(JUMPER_AWG) },
            fixes: [],
          },
        ];
      });
    }),
};
