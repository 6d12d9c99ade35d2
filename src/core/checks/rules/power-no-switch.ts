import type { Circuit } from "../../circuit";
import { sourcesOn } from "../../circuit/power";
import { nextRef, type BasicEdit } from "../../project";
import { label } from "../help";
import type { Found, Fix, Rule } from "../types";

export const powerNoSwitch: Rule = {
  rule: "power.no-switch",
  says: "A battery without a switch runs flat in the drawer.",
  check: (c) =>
    c.netlist.nets.flatMap((net) =>
      net.kind !== "supply"
        ? []
        : sourcesOn(c.netlist, net).flatMap((s): Found[] => {
            if (!s.source.capacity_mAh || net.nodes.length + net.ends.length < 3) return [];
            const contact = c.netlist.elements.some((e) => e.kind === "contact" && (e.a === net.id || e.b === net.id));
            if (contact) return [];
            const plus = s.inst.part.pins.find((p) => p.role === "supply-out")?.label ?? "+";
            return [
              {
                rule: "power.no-switch",
                severity: "note",
                at: [s.ref],
                message: `${label(c, s.ref)} has no switch: it goes on being used when nobody does.`,
                evidence: { source: s.ref },
                fixes: () => switchFix(c, `${s.ref}.${plus}`),
              },
            ];
          }),
    ),
};

/** Puts a toggle into the plus wire of a battery. */
function switchFix(c: Circuit, plus: string): Fix[] {
  const links = c.project.links.filter((l) => l.from === plus || l.to === plus);
  if (!links.length || !c.catalogue.get("discrete/toggle")) return [];
  const ref = nextRef(c.project, "discrete/toggle");
  return [
    {
      id: "add-switch",
      label: `Put a switch behind ${plus}`,
      edits: [
        { type: "addPart", part: "discrete/toggle", ref, label: "Power", companions: { pullUp: null } },
        { type: "addLink", link: { from: plus, to: `${ref}.1` } },
        ...links.flatMap((l): BasicEdit[] => [
          { type: "removeLink", from: l.from, to: l.to },
          { type: "addLink", link: { from: `${ref}.2`, to: l.from === plus ? l.to : l.from } },
        ]),
      ],
    },
  ];
}
