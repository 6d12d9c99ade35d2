import { findPin, type Need, type Part, type Pin } from "../catalogue";
import { outerTerminal, type Netlist } from "../netlist";
import { joinEnd, splitEnd, type Project } from "../project";
import { capabilityCounts, hasCap, shareKey, waysToServe } from "./capability";
import { WEIGHTS } from "./weights";

/** One reason for a price, in the units of `WEIGHTS`. */
export interface Price {
  reason: "hazard" | "scarcity" | "side" | "bus" | "preference" | "moved";
  cost: number;
  says: string;
}

/** A pin that may serve a need, with its price. `pin` is an index into `Problem.pins`. */
export interface Choice {
  pin: number;
  bus: string | null;
  cost: number;
  prices: Price[];
}

export interface ProblemNeed {
  /** `REF.PIN` of the part. */
  id: string;
  ref: string;
  need: Need;
  share: string | null;
  /** Needs with the same group take the same bus instance. Null for single pins. */
  group: number | null;
  locked: string | null;
  present: string | null;
  choices: Choice[];
}

/** The assignment problem of one host, as plain data. The solver and the LP writer read nothing else. */
export interface Problem {
  host: string;
  pins: { label: string; header: string }[];
  needs: ProblemNeed[];
  groups: { id: number; ref: string; kind: string; addresses: string[] }[];
  /** Pairs of groups that can't be on one bus: same address, or a port that takes one device. */
  clashes: [number, number, string][];
  sideCost: number;
}

function scarcity(board: Part): (pin: Pin, need: Need) => Price[] {
  const counts = capabilityCounts(board);
  const total = counts.get("digital") ?? 1;
  return (pin, need) => {
    const wanted = new Set<string>([need.kind, ...(need.require ?? []), ...(need.prefer ?? [])]);
    return [...new Set(pin.offers?.map((o) => o.kind))].flatMap((kind): Price[] => {
      const weight = (WEIGHTS.scarcity as Record<string, number>)[kind];
      if (!weight || wanted.has(kind)) return [];
      const count = counts.get(kind)!;
      // What most pins can do is not rare: spending it costs nothing.
      if (count * 2 > total) return [];
      const cost = Math.min(WEIGHTS.scarcityMost, Math.round(weight / count));
      return cost ? [{ reason: "scarcity", cost, says: `${pin.label} could do ${kind.toUpperCase()}` }] : [];
    });
  };
}

function priceOf(pin: Pin, n: { need: Need; present: string | null }, usual: boolean, bus: string | null): Price[] {
  const out: Price[] = [];
  for (const h of pin.hazards ?? []) {
    const cost = (WEIGHTS.hazard as Record<string, number>)[h.kind] ?? 0;
    if (cost) out.push({ reason: "hazard", cost, says: `${pin.label}: ${h.says}` });
  }
  if (bus && !usual)
    out.push({
      reason: "bus",
      cost: WEIGHTS.unusualBus,
      says: `${pin.label} is not the pin that libraries expect for ${bus}`,
    });
  for (const cap of n.need.prefer ?? [])
    if (!hasCap(pin, cap))
      out.push({ reason: "preference", cost: WEIGHTS.preference, says: `${pin.label} lacks ${cap}` });
  if (n.present && n.present !== pin.label)
    out.push({ reason: "moved", cost: WEIGHTS.moved, says: `the wire moves from ${n.present} to ${pin.label}` });
  return out;
}

/** The need of a part's pin, with what its companions ask of the board pin (an internal pull-up). */
export function effectiveNeed(netlist: Netlist, ref: string, pin: Pin): Need {
  const need = pin.need!;
  if (!netlist.expanded.internalPulls.has(`${ref}.${pin.label}`)) return need;
  return { ...need, require: [...(need.require ?? []), "pull-up"] };
}

const BUS_KINDS = new Set(["i2c", "spi", "uart"]);

/**
 * Collects the needs of all parts on a host and every pin that could serve each, with prices. Locked links leave one
 * choice; needs wired through other parts keep the pin that they reach; unlocked wires may move at a price.
 */
export function makeProblem(project: Project, netlist: Netlist, host: string): Problem {
  const board = netlist.instance(host)!.part;
  const slots = board.pins.filter((p) => p.offers?.length);
  const spare = scarcity(board);
  const problem: Problem = {
    host,
    pins: slots.map((p) => ({ label: p.label, header: p.at?.header ?? "" })),
    needs: [],
    groups: [],
    clashes: [],
    sideCost: WEIGHTS.side,
  };
  const led = followers(project, netlist, host);
  for (const inst of netlist.expanded.instances.values()) {
    if (inst.host !== host || inst.inserted || inst.part.board) continue;
    const groupOf = new Map<string, number>();
    for (const g of inst.part.groups) {
      if (!["i2c", "spi", "uart"].includes(g.kind)) continue;
      const id = problem.groups.length;
      const addresses = g.kind === "i2c" ? [...(g.address ? [g.address] : []), ...(g.also ?? [])] : [];
      problem.groups.push({ id, ref: inst.ref, kind: g.kind, addresses: addresses.map((a) => a.toLowerCase()) });
      for (const label of Object.values(g.pins)) groupOf.set(label, id);
    }
    for (const pin of inst.part.pins) {
      if (!pin.need) continue;
      const id = `${inst.ref}.${pin.label}`;
      if (led.has(id)) continue;
      const direct = project.links.find((l) => {
        const other = l.from === id ? l.to : l.to === id ? l.from : null;
        return other !== null && splitEnd(other).ref === host;
      });
      const through = direct ? undefined : netlist.bindings.find((b) => b.ref === inst.ref && b.pin === pin.label);
      if (through && through.host !== host) continue;
      if (pin.need.optional && !direct && !through) continue;
      const at = direct ? splitEnd(direct.from === id ? direct.to : direct.from).pin : (through?.hostPin ?? null);
      const locked = direct?.locked || through ? at : null;
      const need = effectiveNeed(netlist, inst.ref, pin);
      const present = at && slots.some((s) => s.label === at) ? at : null;
      const entry: ProblemNeed = {
        id,
        ref: inst.ref,
        need,
        share: shareKey(need),
        // A chip select is an ordinary pin: it belongs to its part, not to a bus instance.
        group: BUS_KINDS.has(need.kind) ? (groupOf.get(pin.label) ?? null) : null,
        locked,
        present,
        choices: [],
      };
      slots.forEach((slot, i) => {
        if (locked && slot.label !== locked) return;
        for (const way of waysToServe(slot, need)) {
          if (!way.ok) continue;
          const prices = [...priceOf(slot, { need, present }, way.usual, way.bus), ...spare(slot, need)];
          entry.choices.push({ pin: i, bus: way.bus, cost: prices.reduce((s, p) => s + p.cost, 0), prices });
        }
      });
      problem.needs.push(entry);
    }
  }
  for (const a of problem.groups)
    for (const b of problem.groups) {
      if (a.id >= b.id || a.kind !== b.kind) continue;
      if (a.kind === "uart") problem.clashes.push([a.id, b.id, "a serial port takes one device"]);
      const both = a.addresses.find((x) => b.addresses.includes(x));
      if (both) problem.clashes.push([a.id, b.id, `both answer to address ${both}`]);
    }
  return problem;
}

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
    const next = project.links
      .map((l) => (l.from === here ? l.to : l.to === here ? l.from : null))
      .flatMap((e) => {
        const at = e ? splitEnd(e) : null;
        const part = at && netlist.instance(at.ref)?.part;
        const far = part && !part.board && farSide(part, at.pin);
        return at && far ? [{ ref: at.ref, pin: far }] : [];
      })[0];
    if (!next) return here;
    const other = joinEnd(next);
    if (project.links.some((l) => l.from === other || l.to === other)) return end;
    here = other;
  }
  return here;
}

/**
 * Needs that take no pin of their own, by the need that they go along with: an input that the person wired to another
 * part's input of the same kind, the next piece of a chain, and all sensors of one one-wire bus. An empty leader: the
 * need is served through a chain.
 */
export function followers(project: Project, netlist: Netlist, host: string): Map<string, string> {
  const out = new Map<string, string>();
  const toHost = (id: string) =>
    project.links.some((l) => [l.from, l.to].includes(id) && [l.from, l.to].some((e) => splitEnd(e).ref === host));
  const oneWire: string[] = [];
  const nets = new Map<string, { id: string; kind: string; direct: boolean }[]>();
  for (const inst of netlist.expanded.instances.values()) {
    if (inst.host !== host || inst.inserted || inst.part.board) continue;
    for (const pin of inst.part.pins) {
      if (!pin.need) continue;
      const id = `${inst.ref}.${pin.label}`;
      const binding = netlist.bindings.find((b) => b.ref === inst.ref && b.pin === pin.label);
      if (binding?.chainedAfter) out.set(id, "");
      else if (pin.need.role === "onewire" && (!binding || binding.host === host)) oneWire.push(id);
      else if (pin.io === "in" && !["i2c", "spi", "uart"].includes(pin.need.kind)) {
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
  const at = (id: string) => netlist.bindings.find((b) => `${b.ref}.${b.pin}` === id)?.hostPin;
  // Two one-wire buses are fine when somebody wired them so.
  for (const id of oneWire) if (id !== first && (!at(id) || at(id) === at(first!))) out.set(id, first!);
  return out;
}

/** The definition of a host's pin by label. */
export const hostPin = (netlist: Netlist, host: string, label: string) => findPin(netlist.instance(host)!.part, label);
export { outerTerminal };
