import type { Circuit } from "../../circuit";
import type { Instance } from "../../circuit/netlist";
import { findPin } from "../../parts/catalogue";
import { decidingNet } from "../graph";
import { label, owner } from "../help";
import type { Found, Rule } from "../types";

/** What switches something: a contact, a gate, a supply of loads. Lights and displays may show anything for a moment. */
const switches = (inst: Instance, pin: string): boolean =>
  inst.part.elements.some((e) => e.kind === "contact" || (e.kind === "fet" && e.g === pin)) ||
  Object.values(inst.part.supplies).some((s) => s.forLoads);

/** The level at which a part is on: away from where it rests; null where it has not said where that is. */
function onLevel(inst: Instance, pin: string): "low" | "high" | null {
  const p = findPin(inst.part, pin);
  if (inst.part.elements.some((e) => e.kind === "fet" && e.g === pin)) return "high";
  return p?.restsAt ? (p.restsAt === "high" ? "low" : "high") : null;
}

/** Outputs of parts that give a level before anything was written to them, on the net that decides over a pin. */
const giving = (c: Circuit, ref: string, pin: string) =>
  decidingNet(c, ref, pin).net.ends.filter((e) => e.ref !== ref && e.def.atPowerOn !== undefined);

export const netOnAtPowerOn: Rule = {
  rule: "net.on-at-power-on",
  says: "Outputs of a chip behind a bus give a level of their own from power-on until the program's first write: what is on at that level is on meanwhile.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst) =>
      inst.part.pins.flatMap((p): Found[] => {
        const on = switches(inst, p.label) ? onLevel(inst, p.label) : null;
        if (!on) return [];
        const [from] = giving(c, inst.ref, p.label).filter((e) => e.def.atPowerOn === on || e.def.atPowerOn === "any");
        if (!from) return [];
        const gives = from.def.atPowerOn === "any" ? "anything" : `a ${from.def.atPowerOn}`;
        return [
          {
            rule: "net.on-at-power-on",
            severity: "risk",
            at: [`${inst.ref}.${p.label}`, `${from.ref}.${from.pin}`],
            message: `${from.ref}.${from.pin} gives ${gives} from power-on until the program's first write, and ${label(c, owner(c, inst.ref))} is on while ${on}: it ${from.def.atPowerOn === "any" ? "may run" : "runs"} meanwhile. Hang it on a pin of the board, or take one that is on the other way round.`,
            evidence: { pin: p.label },
            fixes: [],
          },
        ];
      }),
    ),
};
