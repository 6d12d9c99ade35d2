import type { Circuit } from "../../circuit";
import { logicSupplyPin, type Binding, type Net, type NetElement } from "../../circuit/netlist";
import { restOf } from "../../circuit/solve";
import { elementsAt, isRail, netById, otherEnd } from "../graph";
import { label } from "../help";
import type { Found, Fix, Rule } from "../types";

/** What an input's pulls make of it while the contact is open: up, down, or nothing that is sure. */
function openLevel(c: Circuit, net: Net): "high" | "low" | null {
  const rest = restOf(c.solved, net.id, { internal: true });
  return rest && rest.side !== "between" ? rest.side : null;
}

/** Whether further contacts lead from a net to a rail. */
function throughContacts(c: Circuit, start: Net, passed: NetElement): boolean {
  const seen = new Set([start.id]);
  for (const id of seen)
    for (const el of elementsAt(c, id)) {
      if (el.kind !== "contact" || el === passed) continue;
      const far = netById(c, otherEnd(el, id));
      if (isRail(far)) return true;
      if (far) seen.add(far.id);
    }
  return false;
}

/** What the far side of a closed contact makes of the input; `alive` where something drives or reads it on purpose. */
function farLevel(c: Circuit, far: Net, passed: NetElement): "high" | "low" | "none" | "alive" {
  if (isRail(far)) return far.kind === "supply" ? "high" : "low";
  if (far.ends.some((e) => e.as === "driver" || e.as === "both" || e.as === "receiver")) {
    const board = far.ends.filter((e) => e.def.offers);
    const meant = far.ends.some((e) => !e.def.offers && (e.as === "driver" || e.as === "both"));
    const bound = board.some((e) => c.netlist.bindings.some((b) => b.host === e.ref && b.hostPin === e.pin));
    if (meant || bound) return "alive";
  }
  const held = openLevel(c, far);
  if (held) return held;
  // A line of the board that several contacts share is scanned: the program drives it.
  const lines = far.ends.some((e) => e.def.offers?.some((o) => o.kind === "digital" && o.out));
  if (lines && elementsAt(c, far.id).filter((e) => e.kind === "contact").length > 1) return "alive";
  // Contacts in a row: what the others lead to once they are closed as well.
  if (throughContacts(c, far, passed)) return "alive";
  return elementsAt(c, far.id).some((e) => e.kind !== "contact" && e.kind !== "capacitor") ? "alive" : "none";
}

/** Moves the contact's other leg to where closing it makes a difference. */
function returnFix(c: Circuit, b: Binding, far: Net, open: "high" | "low"): Fix[] {
  const host = c.netlist.instance(b.host)?.part;
  const leg = far.ends.find((e) => e.ref === b.ref);
  const to = host && (open === "high" ? host.pins.find((p) => p.role === "ground")?.label : logicSupplyPin(host));
  const end = leg && `${leg.ref}.${leg.pin}`;
  const link = c.project.links.find((l) => l.from === end || l.to === end);
  if (!to || !end || !link) return [];
  return [
    {
      id: "return",
      label: `Move ${end} to ${b.host}.${to}`,
      edits: [{ type: "moveLink", end, from: link.from === end ? link.to : link.from, to: `${b.host}.${to}` }],
    },
  ];
}

function judge(c: Circuit, b: Binding, net: Net, contact: NetElement): Found[] {
  const far = netById(c, otherEnd(contact, net.id));
  const open = openLevel(c, net);
  if (!far || far === net || !open || far.ends.length + far.nodes.length < 2) return [];
  const closed = farLevel(c, far, contact);
  if (closed === "alive" || (closed !== "none" && closed !== open)) return [];
  const leg = far.ends.find((e) => e.ref === b.ref);
  const other = far.ends.find((e) => e.ref !== b.ref);
  return [
    {
      rule: "contact.unchanged",
      severity: "fault",
      at: [`${b.ref}.${b.pin}`, ...(leg ? [`${leg.ref}.${leg.pin}`] : [])],
      message:
        closed === "none"
          ? `Closing ${label(c, b.ref)} joins ${b.host}.${b.hostPin} to ${other ? `${other.ref}.${other.pin}` : far.name}, where nothing sets a level: open or closed, it reads ${open}. Its other leg belongs at ${open === "high" ? "ground" : "the supply"}.`
          : `${label(c, b.ref)} is pulled ${open} and closes to ${closed === "high" ? "the supply" : "ground"}: open or closed, ${b.host}.${b.hostPin} reads ${open}.`,
      evidence: { open, closed: closed === "none" ? open : closed },
      fixes: () => returnFix(c, b, far, open),
    },
  ];
}

export const contactUnchanged: Rule = {
  rule: "contact.unchanged",
  says: "A contact must close to the side that its pull does not hold: else the pin reads the same, pressed or not.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      if (b.need.kind !== "digital-in" && b.need.kind !== "interrupt") return [];
      const net = c.netlist.netOf(`${b.ref}.${b.pin}`);
      const own = elementsAt(c, net.id).filter((e) => e.kind === "contact" && e.ref === b.ref);
      // A change-over contact always closes to one side or the other.
      return own.length === 1 ? judge(c, b, net, own[0]!) : [];
    }),
};
