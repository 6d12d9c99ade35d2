import type { Instance, Net, Netlist } from "../../../circuit/netlist";
import { findPin, type Pin } from "../../../parts/catalogue";
import { linksAt, splitEnd, type Project } from "../../../project";
import { attachPoint } from "./followers";

/** Rails this much apart are not the same logic voltage, volts. */
const SAME_V = 0.3;

/** A supply or ground: what hangs on it asks for no pin of the board. */
const isRail = (net: Net) => net.kind === "supply" || net.kind === "ground";

/** The need of a part's pin at an endpoint, if it has one. */
function needAt(netlist: Netlist, end: string) {
  const { ref, pin } = splitEnd(end);
  const part = netlist.instance(ref)?.part;
  return part && findPin(part, pin)?.need;
}

/** Board pins that somebody has put to a use of their own: on a rail, or wired to something that asks for no pin. */
export function usedByHand(project: Project, netlist: Netlist, ends: readonly string[]): Set<string> {
  const wanted = new Set(ends);
  const out = new Set<string>();
  for (const l of project.links)
    for (const [end, far] of [
      [l.from, l.to],
      [l.to, l.from],
    ] as const)
      if (wanted.has(end) && !needAt(netlist, far)) out.add(end);
  return out;
}

/** The supply that a contact's other leg hangs on, when it is none that a board's pin may see. */
function foreignRail(netlist: Netlist, inst: Instance, pin: Pin, host: string): Net | null {
  if (inst.part.pins.length !== 2 || !inst.part.elements.some((e) => e.kind === "contact")) return null;
  const other = inst.part.pins.find((p) => p !== pin);
  const net = other && netlist.netOf(`${inst.ref}.${other.label}`);
  const board = netlist.instance(host)?.part.board;
  const logic = board && netlist.netOf(`${host}:${board.logicSupply}`);
  if (!net || net.kind !== "supply" || net === logic) return null;
  const V = net.V?.typ ?? Infinity;
  // A rail of the board's own logic voltage is what a pull-down's button closes to.
  return logic?.V && Math.abs(V - logic.V.typ) <= SAME_V ? null : net;
}

/**
 * Why the planner leaves a need alone: somebody wired its pin on purpose (to a rail, to another part, in a row), or its part
 * switches a supply. Null where a wire is wanted. Bus lines that only lead to each other still want their controller.
 */
export function settledByHand(
  project: Project,
  netlist: Netlist,
  inst: Instance,
  pin: Pin,
  host: string,
): string | null {
  const end = `${inst.ref}.${pin.label}`;
  const net = netlist.netOf(end);
  const wired = linksAt(project, end).length > 0;
  if (wired && isRail(net)) return `${end} is joined to a rail`;
  if (foreignRail(netlist, inst, pin, host)) return `${inst.label} switches a supply`;
  // Wires between inputs only leave open who drives them.
  const kept = linksAt(project, end).some((l) => l.locked && !needAt(netlist, l.from === end ? l.to : l.from));
  if (kept && attachPoint(project, netlist, end) === end) return `${end} was joined by hand`;
  if (!wired || pin.role !== "passive" || attachPoint(project, netlist, end) !== end) return null;
  // Two inputs side by side share one pin of the board: one of them is planned, the other goes along.
  const alike = linksAt(project, end).every((l) => {
    const far = splitEnd(l.from === end ? l.to : l.from);
    const part = netlist.instance(far.ref)?.part;
    const def = part && findPin(part, far.pin);
    return (
      def?.need !== undefined &&
      def.need.kind === pin.need?.kind &&
      part!.pins.length === inst.part.pins.length &&
      !sameRow(netlist, inst, far)
    );
  });
  return alike ? null : `${end} was joined by hand`;
}

/** Whether the far part hangs in a row with this one: its other leg is not on the same net as this part's other leg. */
function sameRow(netlist: Netlist, inst: Instance, far: { ref: string; pin: string }): boolean {
  const other = (ref: string, label: string) => {
    const pins = netlist.instance(ref)?.part.pins ?? [];
    const p = pins.length === 2 ? pins.find((x) => x.label !== label) : undefined;
    return p && netlist.netOf(`${ref}.${p.label}`);
  };
  const mine = inst.part.pins.find((p) => p.need)?.label ?? "";
  const [a, b] = [other(inst.ref, mine), other(far.ref, far.pin)];
  return a !== undefined && b !== undefined && !isRail(b) && a !== b;
}
