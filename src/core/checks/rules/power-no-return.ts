import type { Circuit } from "../../circuit";
import type { NetElement } from "../../circuit/netlist";
import { label, wireUp } from "../help";
import type { Found, Rule } from "../types";

/** Below this nothing runs, amperes. */
const NOTHING_A = 1e-6;

/** Whether a load or light is wired at both ends: what is not wired yet is no mistake. */
function isWired(c: Circuit, e: NetElement): boolean {
  const touches = (id: string) =>
    (c.netlist.nets.find((n) => n.id === id)?.ends ?? []).some((x) => x.ref !== e.ref) ||
    c.netlist.elements.some((x) => x !== e && [x.a, x.b, x.control].includes(id));
  return touches(e.a) && touches(e.b);
}

/** The transistor or contact at a load's end whose own far side leads nowhere. */
function culprit(c: Circuit, e: NetElement): { ref: string; pin: string } | null {
  for (const id of [e.a, e.b]) {
    for (const x of c.netlist.elements) {
      if (x === e || (x.a !== id && x.b !== id) || !["bjt", "fet", "contact", "resistor"].includes(x.kind)) continue;
      const far = x.a === id ? x.b : x.a;
      const net = c.netlist.netOf(`${x.ref}.${c.netlist.instance(x.ref)!.part.pins[0]!.label}`);
      const end = c.netlist.instance(x.ref)!.part.pins.find((p) => c.netlist.netOf(`${x.ref}.${p.label}`).id === far);
      if (!end || !net) continue;
      const there = c.netlist.netOf(`${x.ref}.${end.label}`);
      if (there.ends.length < 2 && !there.nodes.length) return { ref: x.ref, pin: end.label };
    }
  }
  return null;
}

/** A load, or a module on a ground of its own, whose current never finds its way back in any state. */
export const noReturn: Rule = {
  rule: "power.no-ground",
  says: "Current that goes in must come back: a load whose other side never reaches ground or supply stays dead.",
  check: (c) => {
    const loads = c.netlist.elements.flatMap((e): Found[] => {
      if (e.kind !== "load" || e.module || !isWired(c, e)) return [];
      const f = c.solved.flows.get(e);
      if (f && f.A.typ > NOTHING_A) return [];
      const at = culprit(c, e);
      // Where both ends lead to rails, or a switch is judged by its drive, other rules speak.
      if (!at) return [];
      return [
        {
          rule: "power.no-ground",
          severity: "fault",
          at: [e.ref, `${at.ref}.${at.pin}`],
          message: `No current ever flows through ${label(c, e.ref)}: ${at.pin} of ${label(c, at.ref)} leads nowhere.`,
          evidence: { open: `${at.ref}.${at.pin}` },
          fixes: wireUp(c, at.ref).length
            ? [{ id: "wire-up", label: `Wire ${at.ref}.${at.pin}`, edits: wireUp(c, at.ref) }]
            : [],
        },
      ];
    });
    return loads;
  },
};
