import { isBusKind, type Part } from "../../../parts/catalogue";
import { outerTerminal, type Instance, type Netlist } from "../../../circuit/netlist";
import { farOf, joinEnd, linksAt, splitEnd, type Project } from "../../../project";

/** The pin on the far side of a part that passes a signal on: a resistor or diode, a buffer, shifter or isolator. */
function farSide(part: Part, pin: string): string | undefined {
  const channel = part.channels.find((c) => c.out === pin || c.in === pin);
  if (channel) return channel.out === pin ? channel.in : channel.out;
  if (part.pins.length !== 2 || part.pins.some((p) => p.need)) return undefined;
  const series = part.elements.find((e) => e.kind === "resistor" || e.kind === "diode");
  return series && part.pins.find((p) => p.label !== pin)?.label;
}

/**
 * Where a wire to a need really ends: the pin, or the free end of what the person put into the wire, such as a resistor
 * or an isolator.
 */
export function attachPoint(project: Project, netlist: Netlist, end: string): string {
  let here = end;
  for (let step = 0; step < 4; step++) {
    const next = linksAt(project, here).flatMap((l) => {
      const at = splitEnd(farOf(l, here));
      const part = netlist.instance(at.ref)?.part;
      // A pin that offers is where a wire ends: a multiplexer's input, an expander's pin.
      const ends = part?.pins.some((p) => p.label === at.pin && p.offers?.length);
      const far = part && !part.board && !ends && farSide(part, at.pin);
      return far ? [{ ref: at.ref, pin: far }] : [];
    })[0];
    if (!next) return here;
    const other = joinEnd(next);
    if (linksAt(project, other).length) return end;
    here = other;
  }
  return here;
}

/** Whether a pin is the data-in (or clock-in) of a chain and hangs on the data-out of another piece, wired or not to a board. */
function fedByChain(netlist: Netlist, inst: Instance, label: string): boolean {
  const own = inst.part.groups.find((g) => g.kind === "chain" && (g.pins.in === label || g.pins.clockIn === label));
  if (!own) return false;
  const role = own.pins.in === label ? "out" : "clockOut";
  return netlist
    .netOf(outerTerminal(netlist.expanded, `${inst.ref}.${label}`))
    .ends.some((e) =>
      netlist
        .instance(e.ref)
        ?.part.groups.some((g) => e.ref !== inst.ref && g.kind === "chain" && g.pins[role] === e.pin),
    );
}

/**
 * Needs that take no pin of their own, by the need that they go along with: an input that the person wired to another
 * part's input of the same kind, the next piece of a chain, and all sensors of one one-wire bus. An empty leader: the
 * need is served through a chain.
 */
export function followers(project: Project, netlist: Netlist, host: string): ReadonlyMap<string, string> {
  if (project !== netlist.expanded.project) return ledIn(project, netlist, host);
  const mine = known.get(netlist) ?? new Map<string, ReadonlyMap<string, string>>();
  known.set(netlist, mine);
  const there = mine.get(host) ?? ledIn(project, netlist, host);
  mine.set(host, there);
  return there;
}

const known = new WeakMap<Netlist, Map<string, ReadonlyMap<string, string>>>();

function ledIn(project: Project, netlist: Netlist, host: string): Map<string, string> {
  const out = new Map<string, string>();
  const toHost = (id: string) => linksAt(project, id).some((l) => splitEnd(farOf(l, id)).ref === host);
  const bound = new Map([...netlist.bindings].reverse().map((b) => [`${b.ref}.${b.pin}`, b]));
  const oneWire: string[] = [];
  const nets = new Map<string, { id: string; kind: string; direct: boolean }[]>();
  for (const inst of netlist.expanded.instances.values()) {
    if (inst.host !== host || inst.inserted || inst.part.board) continue;
    for (const pin of inst.part.pins) {
      if (!pin.need) continue;
      const id = `${inst.ref}.${pin.label}`;
      const binding = bound.get(id);
      if (binding?.chainedAfter || fedByChain(netlist, inst, pin.label)) out.set(id, "");
      else if (pin.need.role === "onewire" && (!binding || binding.host === host)) oneWire.push(id);
      else if (pin.io === "in" && !isBusKind(pin.need.kind)) {
        const net = netlist.netOf(outerTerminal(netlist.expanded, id)).id;
        nets.set(net, [...(nets.get(net) ?? []), { id, kind: pin.need.kind, direct: toHost(id) }]);
      }
    }
  }
  for (const list of nets.values()) {
    const leader = list.find((x) => x.direct) ?? list[0]!;
    for (const x of list) if (x !== leader && x.kind === leader.kind && !x.direct) out.set(x.id, leader.id);
  }
  const first = oneWire.find(toHost) ?? oneWire[0];
  const at = (id: string) => bound.get(id)?.hostPin;
  // Two one-wire buses are fine when somebody wired them so.
  for (const id of oneWire) if (id !== first && (!at(id) || at(id) === at(first!))) out.set(id, first!);
  return out;
}
