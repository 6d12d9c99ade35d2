import type { Circuit } from "../../circuit";
import type { Net, NetElement } from "../../circuit/netlist";
import { elementsAt, netById, otherEnd } from "../graph";
import { rootOf } from "../../circuit/power";
import { evaluate, formatSI } from "../../quantity";
import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";

/** Smaller capacitors are full before a contact minds, farads. */
const LARGE_F = 220e-6;
/** Wires, contact and capacitor together, ohms. */
const WAY_OHM = 0.15;
/** A contact stands so many times its rating for the instant that a capacitor takes. */
const INSTANT = 10;

/** A contact, the rail whose volts stand over it while it is open, and what hangs behind it. */
interface Closing {
  contact: NetElement;
  rail: Net;
  from: string;
  F: number;
}

const faradsAt = (c: Circuit, net: string, far: (n: Net | undefined) => boolean) =>
  elementsAt(c, net)
    .filter((e) => e.kind === "capacitor" && far(netById(c, otherEnd(e, net))))
    .reduce((sum, e) => sum + (e.F ?? 0), 0);

/** Contacts in the plus wire of a supply. */
const inPlus = (c: Circuit): Closing[] =>
  c.power.stages.flatMap((s) => {
    const contact = c.netlist.elements.find((e) => e.ref === s.ref && e.kind === "contact");
    const rail = netById(c, s.to);
    return contact && rail?.V
      ? [{ contact, rail, from: s.from, F: faradsAt(c, rail.id, (n) => n?.kind === "ground") }]
      : [];
  });

/** Contacts in the ground wire: the capacitor hangs between the supply and the node that they switch. */
const inMinus = (c: Circuit): Closing[] =>
  c.netlist.elements.flatMap((contact) => {
    if (contact.kind !== "contact") return [];
    const held = (id: string) => c.solved.scene.held.has(id);
    const node = [contact.a, contact.b].find((id) => netById(c, id)?.kind === "ground" && !held(id));
    const other = node === undefined ? undefined : netById(c, otherEnd(contact, node));
    if (node === undefined || other?.kind !== "ground" || !held(other.id)) return [];
    const rail = elementsAt(c, node).flatMap((e) => {
      const far = e.kind === "capacitor" ? netById(c, otherEnd(e, node)) : undefined;
      return far?.kind === "supply" && far.V ? [far] : [];
    })[0];
    return rail ? [{ contact, rail, from: rail.id, F: faradsAt(c, node, (n) => n === rail) }] : [];
  });

export const inrush: Rule = {
  rule: "power.inrush",
  says: "An empty capacitor is a short for an instant: a switch in front of a large one welds, and a weak source drops out.",
  check: (c) =>
    [...inPlus(c), ...inMinus(c)].flatMap(({ contact, rail, from, F }): Found[] => {
      const def = contact.def?.kind === "contact" ? contact.def : undefined;
      const root = rootOf(c.netlist, c.power, from)?.source;
      const ohm = WAY_OHM + (root?.source.rint_ohm ? evaluate(root.source.rint_ohm, root.inst.vars) : 0);
      const A = rail.V!.max / ohm;
      const most = ((def?.max_mA ?? 50) / 1000) * INSTANT;
      if (F < LARGE_F || A <= most) return [];
      return [
        {
          rule: "power.inrush",
          severity: "risk",
          at: [contact.ref, rail.name],
          message: `${label(c, contact.ref)} closes onto ${formatSI(F, "F")} of empty capacitor: for an instant about ${mA(A)} flows, and its contact stands ${mA(most)} for that long. Take a stronger switch, or put the capacitor before the switch.`,
          evidence: { instant_A: round(A, 1), stands_A: round(most, 1), capacitor_uF: round(F * 1e6, 0) },
          fixes: [],
        },
      ];
    }),
};
