import { PAIRS } from "../../circuit/netlist";
import { elementsAt, otherEnd } from "../graph";
import { label } from "../help";
import type { Found, Fix, Rule } from "../types";

const PAIR_OHM: Record<string, number> = { CANH: 120, A: 120 };

export const busTermination: Rule = {
  rule: "bus.termination",
  says: "A differential pair wants its own resistance at both ends of the cable, 120 Ω each, and nowhere else.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst): Found[] => {
      const pair = PAIRS.find((p) => p.every((l) => inst.part.pins.some((x) => x.label === l && x.role === "passive")));
      const entry = c.project.parts.find((p) => p.ref === inst.ref);
      if (!pair || !entry || entry.companions?.termination !== undefined) return [];
      const [a, b] = pair.map((l) => c.netlist.netOf(`${inst.ref}.${l}`));
      if (!a || !b || a.ends.length < 2) return [];
      const there = elementsAt(c, a.id).some((e) => e.kind === "resistor" && otherEnd(e, a.id) === b.id);
      if (there) return [];
      const ohm = PAIR_OHM[pair[0]] ?? 120;
      const fixes: Fix[] = [
        {
          id: "terminate",
          label: `This is an end of the cable: put ${ohm} Ω across`,
          edits: [{ type: "setCompanion", ref: inst.ref, key: "termination", value: { ohm } }],
        },
        {
          id: "not-an-end",
          label: "It is no end, or the module brings its own: none here",
          edits: [{ type: "setCompanion", ref: inst.ref, key: "termination", value: null }],
        },
      ];
      return [
        {
          rule: "bus.termination",
          severity: "note",
          at: [`${inst.ref}.${pair[0]}`, `${inst.ref}.${pair[1]}`],
          message: `If ${label(c, inst.ref)} is an end of the cable, it wants ${ohm} Ω between ${pair[0]} and ${pair[1]}; many modules bring it with a jumper.`,
          evidence: { R_ohm: ohm },
          fixes,
        },
      ];
    }),
};
