import type { Circuit } from "../../circuit";
import type { Instance } from "../../circuit/netlist";
import type { Pin } from "../../parts/catalogue";
import { label, linkedRefs } from "../help";
import type { Found, Fix, Rule } from "../types";

/** Where an enable or select rests: selects and active-low ones high, gates and drivers' inputs low. */
const RESTS_HIGH = /^(CS|SS|CE|NSS|RST|RESET|.*OE|RE|EN|STBY|SLP)$/i;

function tieFix(c: Circuit, inst: Instance, p: Pin): Fix[] {
  const end = `${inst.ref}.${p.label}`;
  const toGround = p.hook === "ground" || !RESTS_HIGH.test(p.label);
  const own = inst.part.levels[p.level ?? ""]?.supply;
  const pin = inst.part.pins.find((x) =>
    toGround ? x.role === "ground" : x.role.startsWith("supply-") && x.supply === own,
  );
  const wire = pin && c.project.links.find((l) => [l.from, l.to].includes(`${inst.ref}.${pin.label}`));
  const to = wire && (wire.from === `${inst.ref}.${pin!.label}` ? wire.to : wire.from);
  return to
    ? [{ id: "tie", label: `Wire ${end} to ${to}`, edits: [{ type: "addLink", link: { from: end, to } }] }]
    : [];
}

/** A gate, enable or select that must not float, of a part that is in use, with no wire at all. */
export const openInput: Rule = {
  rule: "net.floating",
  says: "An open contact, or an output that can only pull low, gives no high by itself: a pull must hold the pin.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst): Found[] => {
      if (inst.inserted || inst.part.board || !linkedRefs(c.project).has(inst.ref)) return [];
      return inst.part.pins.flatMap((p): Found[] => {
        if (!p.mustNotFloat || p.restsAt || p.need?.optional) return [];
        const net = c.netlist.netOf(`${inst.ref}.${p.label}`);
        const held = c.netlist.elements.some(
          (e) => e.kind === "resistor" && [e.a, e.b].includes(net.id) && e.a !== e.b,
        );
        if (net.ends.length > 1 || held || net.kind === "supply" || net.kind === "ground") return [];
        const gate = inst.part.elements.some((e) => e.kind === "fet" && e.g === p.label);
        return [
          {
            rule: "net.floating",
            severity: "risk",
            at: [`${inst.ref}.${p.label}`],
            message: `${p.label} of ${label(c, inst.ref)} has no wire and must not float: ${gate ? "a gate left open switches on by a touch" : "left open, it follows every touch and hum"}.`,
            evidence: { pin: p.label },
            fixes: () => tieFix(c, inst, p),
          },
        ];
      });
    }),
};
