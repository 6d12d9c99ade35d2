import { evaluate, exactly, type Triple } from "../../quantity";
import { findPin, isBusKind, type Part, type Pin } from "../../parts/catalogue";
import { splitEnd } from "../../project";
import { isWorked, outerTerminal, type Expanded, type Instance } from "./expand";
import type { Binding, EndAs, Net, NetElement, NetEnd, Netlist } from "./types";
import { Union } from "./union";

const supplyNode = (ref: string, supply: string) => `${ref}:${supply}`;
const groundNode = (ref: string, domain: string) => `${ref}:ground:${domain}`;

function joinPins(u: Union, { ref, part }: Instance) {
  for (const s of Object.keys(part.supplies)) u.add(supplyNode(ref, s));
  for (const p of part.pins) {
    const end = `${ref}.${p.label}`;
    u.add(end);
    if (p.role.startsWith("supply-")) u.join(supplyNode(ref, p.supply!), end);
    if (p.role === "ground") u.join(groundNode(ref, p.domain ?? "gnd"), end);
    if (p.role === "cable") u.add(groundNode(ref, p.domain ?? "gnd"));
  }
}

function joinCable(u: Union, a: Instance, pinA: Pin, b: Instance, pinB: Pin) {
  u.join(supplyNode(a.ref, pinA.supply!), supplyNode(b.ref, pinB.supply!));
  u.join(groundNode(a.ref, pinA.domain ?? "gnd"), groundNode(b.ref, pinB.domain ?? "gnd"));
}

const AS: Record<string, EndAs> = {
  in: "receiver",
  out: "driver",
  bidir: "both",
  "open-drain": "both",
  "analog-in": "receiver",
  "analog-out": "driver",
};
const ROLE_AS: Record<string, EndAs> = {
  ground: "ground",
  "supply-in": "sink",
  "supply-out": "source",
  "supply-io": "sink",
  passive: "passive",
  reference: "none",
  nc: "none",
  cable: "none",
};

/** What the host's pin does when it serves a need of this kind. */
const HOST_AS: Record<string, EndAs> = {
  "digital-out": "driver",
  pwm: "driver",
  dac: "driver",
  "digital-in": "receiver",
  interrupt: "receiver",
  adc: "receiver",
  bridge: "passive",
};

const SPI_HOST: Record<string, EndAs> = { sck: "driver", mosi: "driver", cs: "driver", miso: "receiver" };

/** A serial line has one direction; the role is that of the board's pin. */
const UART_HOST: Record<string, EndAs> = { tx: "driver", rts: "driver", rx: "receiver", cts: "receiver" };

const I2S_HOST: Record<string, EndAs> = { sck: "driver", ws: "driver", sdo: "driver", sdi: "receiver" };

function hostAs(b: Binding): EndAs {
  if (b.need.kind === "i2s") return I2S_HOST[b.need.role ?? ""] ?? "both";
  if (b.need.kind === "uart") return UART_HOST[b.need.role ?? ""] ?? "both";
  if (b.need.kind === "spi") return SPI_HOST[b.need.role ?? ""] ?? "both";
  return HOST_AS[b.need.kind] ?? "both";
}

function makeElements(e: Expanded, net: (t: string) => Net): NetElement[] {
  const out: NetElement[] = [];
  for (const inst of e.instances.values())
    for (const el of inst.part.elements) {
      const at = (end: string) =>
        net(/^(supply|ground):/.test(end) ? `${inst.ref}:${end.replace(/^supply:/, "")}` : `${inst.ref}.${end}`).id;
      const value = (x: number | string) => evaluate(x, inst.vars);
      const spread = (t: { min: number | string; typ: number | string; max: number | string }): Triple => ({
        min: value(t.min),
        typ: value(t.typ),
        max: value(t.max),
      });
      if (el.kind === "bjt" || el.kind === "fet") {
        const [a, b, control] = el.kind === "bjt" ? [el.c, el.e, el.b] : [el.d, el.s, el.g];
        out.push({ ref: inst.ref, kind: el.kind, def: el, a: at(a), b: at(b), control: at(control) });
        continue;
      }
      const base = { ref: inst.ref, kind: el.kind, def: el, a: at(el.a), b: at(el.b) };
      if (el.kind === "resistor")
        out.push({
          ...base,
          ohm: value(el.ohm),
          tolerance: value(el.tolerance),
          ...(el.span && { span: { min: value(el.span.min), max: value(el.span.max) } }),
        });
      else if (el.kind === "capacitor") out.push({ ...base, F: value(el.F) });
      else if (el.kind === "contact") out.push(base);
      else if (el.kind === "load") {
        const A = { idle: value(el.mA.idle) / 1000, typ: value(el.mA.typ) / 1000, peak: value(el.mA.peak) / 1000 };
        out.push({ ...base, A, inductive: el.inductive });
      } else out.push({ ...base, Vf: spread(el.Vf), max_A: value(el.max_mA) / 1000 });
    }
  return out;
}

interface Reached {
  net: Net;
  /** The part whose chain the signal came through, seen from the start: the one before it in the chain. */
  chainedAfter?: string;
  /** The signal has crossed an isolation gap. */
  isolated?: boolean;
  /** The pin of the first buffer or isolator on the way that carries signals in one direction only. */
  oneWay?: string;
}

/** The ground domain that a pin's levels refer to. */
function domainOf(part: Part, label: string): string {
  const level = part.pins.find((p) => p.label === label)?.level;
  return part.supplies[part.levels[level ?? ""]?.supply ?? ""]?.domain ?? "gnd";
}

/** Where a signal can go on from a pin inside its part: through buffers, shifters, switches, and back along a chain. */
function inside(part: Part, pin: string): { to: string; chain: boolean; gap?: boolean; oneWay?: boolean }[] {
  const out: { to: string; chain: boolean; gap?: boolean; oneWay?: boolean }[] = [];
  for (const c of part.channels) {
    if (c.out !== pin && c.in !== pin) continue;
    const to = c.out === pin ? c.in : c.out;
    out.push({ to, chain: false, gap: domainOf(part, to) !== domainOf(part, pin), oneWay: !c.both });
  }
  for (const g of part.groups) {
    if (g.kind !== "chain") continue;
    if (g.pins.out === pin && g.pins.in) out.push({ to: g.pins.in, chain: true });
    if (g.pins.clockOut === pin && g.pins.clockIn) out.push({ to: g.pins.clockIn, chain: true });
  }
  return out;
}

/** Nets that a signal reaches from `start` through resistors, buffers and chains, nearest first; rails stop it. */
function reach(
  start: Net,
  byId: Map<string, Net>,
  joined: Map<string, NetElement[]>,
  e: Expanded,
  net: (t: string) => Net,
): Reached[] {
  const seen = new Set([start.id]);
  const queue: Reached[] = [{ net: start }];
  for (const here of queue) {
    if (here.net.kind === "supply" || here.net.kind === "ground") continue;
    const { net: _, ...sofar } = here;
    const next: (Omit<Reached, "net"> & { id: string })[] = (joined.get(here.net.id) ?? []).map((el) => ({
      ...sofar,
      id: el.a === here.net.id ? el.b : el.a,
    }));
    for (const end of here.net.ends)
      for (const way of inside(e.instances.get(end.ref)!.part, end.pin))
        next.push({
          ...sofar,
          id: net(`${end.ref}.${way.to}`).id,
          ...(way.chain && { chainedAfter: here.chainedAfter ?? end.ref }),
          ...(way.gap && { isolated: true }),
          ...(way.oneWay && { oneWay: here.oneWay ?? `${end.ref}.${end.pin}` }),
        });
    for (const { id, ...how } of next) {
      const n = byId.get(id)!;
      if (seen.has(id) || n.kind === "supply" || n.kind === "ground") continue;
      seen.add(id);
      queue.push({ net: n, ...how });
    }
  }
  return queue;
}

function makeBindings(e: Expanded, byId: Map<string, Net>, elements: NetElement[], net: (t: string) => Net): Binding[] {
  const joined = new Map<string, NetElement[]>();
  // The signal of a module that somebody can switch off still has its pin; loose parts are read where they are wired.
  const closed = new Map<string, NetElement[]>();
  const join = (map: Map<string, NetElement[]>, el: NetElement) => {
    for (const id of [el.a, el.b]) map.set(id, [...(map.get(id) ?? []), el]);
  };
  // A MOSFET whose gate stands at a supply passes a line both ways: a shifter made of loose parts.
  const passes = (el: NetElement) => el.kind === "fet" && byId.get(el.control!)?.kind === "supply";
  for (const el of elements) {
    if (el.kind === "resistor" || el.kind === "diode" || passes(el)) join(joined, el);
    if (el.kind === "resistor" || el.kind === "diode" || passes(el) || el.kind === "contact") join(closed, el);
  }
  const out: Binding[] = [];
  for (const inst of e.instances.values()) {
    // A driver that stands in a load's wire is what the board's pin works on.
    if (inst.part.board || !isWorked(inst)) continue;
    for (const p of inst.part.pins) {
      if (!p.need) continue;
      const start = net(`${inst.ref}.${p.label}`);
      for (const [i, r] of reach(start, byId, inst.part.supplies.main ? closed : joined, e, net).entries()) {
        // Expanders, multiplexers and shift registers host too: they offer pins of their own.
        const found = r.net.ends.find(
          (x) =>
            x.ref !== inst.ref && (x.def.offers || (e.instances.get(x.ref)!.part.board && x.def.role === "signal")),
        );
        if (!found) continue;
        out.push({
          ref: inst.ref,
          pin: p.label,
          need: p.need,
          host: found.ref,
          hostPin: found.pin,
          direct: i === 0,
          ...(r.chainedAfter && { chainedAfter: r.chainedAfter }),
          ...(r.isolated && { isolated: true }),
          ...(r.oneWay && { oneWay: r.oneWay }),
        });
        break;
      }
    }
  }
  return out;
}

/** `3.3` → `3V3`, `5` → `5V`, `12` → `12V`: the short names that are printed on boards. */
export function voltName(v: number): string {
  const [whole, part] = v.toFixed(1).split(".");
  return part === "0" ? `${whole}V` : `${whole}V${part}`;
}

function nameNets(nets: Net[], e: Expanded, bindings: Binding[]) {
  const used = new Map<string, number>();
  const unique = (name: string, hint: string) => {
    const base = used.has(name) ? `${name}·${hint}` : name;
    const count = used.get(base) ?? 0;
    used.set(base, count + 1);
    return count ? `${base}·${count + 1}` : base;
  };
  // A loose part in a wire speaks under the name of the part that it belongs to.
  const label = (ref: string) => {
    const inst = e.instances.get(ref);
    return (inst?.inserted ? e.instances.get(inst.inserted.by)?.label : inst?.label) ?? ref;
  };
  const called = (ref: string, pin: string) => {
    const inst = e.instances.get(ref);
    return inst && findPin(inst.part, pin)?.called;
  };
  const busOf = (b: Binding) => {
    const pin = findPin(e.instances.get(b.host)!.part, b.hostPin);
    const offer = pin?.offers?.find((o) => o.kind === b.need.kind && "role" in o && o.role === b.need.role);
    return offer && "bus" in offer ? offer.bus : undefined;
  };
  const buses = [...new Set(bindings.filter((b) => b.need.kind === "i2c").map(busOf))];
  // The busiest supply net gets the plain name: the board's 5V pin, not the cable that feeds it.
  const wires = (n: Net) =>
    e.wires.filter((w) => n.ends.some((x) => [w.from, w.to].some((y) => x.ref === y.ref && x.pin === y.pin))).length;
  const busy = new Map(nets.filter((n) => n.kind === "supply").map((n) => [n, wires(n)]));
  const order = [...nets].sort((a, b) => (busy.get(b) ?? 0) - (busy.get(a) ?? 0));
  for (const n of order) {
    const first = n.ends[0];
    if (n.kind === "ground") n.name = unique("GND", n.nodes[0]!.ref);
    else if (n.kind === "supply") {
      const node = n.nodes.find((x) => x.supply) ?? n.nodes[0]!;
      const typ = n.V?.typ ?? Number(e.instances.get(node.ref)!.part.supplies[node.supply ?? ""]?.V.typ ?? 0);
      n.name = unique(voltName(typ), node.ref);
    } else {
      const host = n.ends.find((x) => x.def.offers);
      const b = bindings.find((x) => host && x.host === host.ref && x.hostPin === host.pin);
      const bus = b && n.kind === "bus-line" ? busOf(b) : undefined;
      if (b && bus)
        n.name = unique((b.need.role ?? "").toUpperCase() + (buses.length > 1 ? /\d*$/.exec(bus)![0] : ""), bus);
      else if (b) n.name = unique(`${b.hostPin}·${called(b.ref, b.pin) ?? label(b.ref)}`, b.pin);
      else if (first) n.name = unique(`${label(first.ref)}·${called(first.ref, first.pin) ?? first.pin}`, first.pin);
    }
  }
}

/** Whether a ground net is really zero: a source, a board or a chip that runs programs stands on it. */
export const isAnchored = (e: Expanded, net: Net): boolean =>
  net.nodes.some((x) => {
    const part = x.ground ? e.instances.get(x.ref)?.part : undefined;
    return part && (part.board !== undefined || Object.values(part.supplies).some((s) => s.source));
  });

/**
 * Parts whose ground hangs behind a transistor, a contact or a resistor instead of leading to ground: each is a load between its
 * supply and that node, so that what switches it is judged like the switch of a motor.
 */
function moduleLoads(e: Expanded, elements: readonly NetElement[], net: (t: string) => Net): NetElement[] {
  const at = new Set(elements.flatMap((x) => [x.a, x.b]));
  return [...e.instances.values()].flatMap((inst) =>
    inst.part.board || inst.inserted
      ? []
      : Object.entries(inst.part.supplies).flatMap(([key, s]): NetElement[] => {
          const [plus, minus] = [net(supplyNode(inst.ref, key)), net(groundNode(inst.ref, s.domain))];
          if (s.source || !s.mA || !minus || minus === plus || isAnchored(e, minus) || !at.has(minus.id)) return [];
          const amps = (x: number | string) => evaluate(x, inst.vars) / 1000;
          const A = { idle: amps(s.mA.idle), typ: amps(s.mA.typ), peak: amps(s.mA.peak) };
          if (!(A.peak > 0)) return [];
          const def = { kind: "load" as const, a: "", b: "", V: s.V, mA: s.mA, inductive: false };
          return [{ ref: inst.ref, kind: "load", def, a: plus.id, b: minus.id, A, inductive: false, module: true }];
        }),
  );
}

/** Ends, nets and elements of an expanded project; voltages are filled in by the power stage. */
export function buildNets(e: Expanded): Netlist {
  const u = new Union();
  for (const inst of e.instances.values()) joinPins(u, inst);
  for (const w of e.wires) {
    const [a, b] = [e.instances.get(w.from.ref), e.instances.get(w.to.ref)];
    const [pa, pb] = [a && findPin(a.part, w.from.pin), b && findPin(b.part, w.to.pin)];
    if (!a || !b || !pa || !pb) continue;
    if (w.cable) joinCable(u, a, pa, b, pb);
    else u.join(`${a.ref}.${pa.label}`, `${b.ref}.${pb.label}`);
  }
  const homes = new Map<string, Net>();
  const all: Net[] = [];
  for (const members of u.members().values()) {
    const net: Net = { id: "", name: "", kind: "signal", ends: [], nodes: [], V: null };
    for (const m of members) {
      homes.set(m, net);
      // Only nodes have a colon before a dot; most members are pins.
      const node = m.includes(":") ? /^([^.:]+):(?:ground:(.+)|(.+))$/.exec(m) : null;
      if (node) {
        net.nodes.push(node[2] ? { ref: node[1]!, ground: node[2] } : { ref: node[1]!, supply: node[3]! });
        continue;
      }
      const { ref, pin } = splitEnd(m);
      const def = findPin(e.instances.get(ref)!.part, pin)!;
      net.ends.push({ ref, pin, as: def.role === "signal" ? AS[def.io!]! : (ROLE_AS[def.role] ?? "none"), def });
    }
    if (net.nodes.some((n) => n.ground)) net.kind = "ground";
    else if (net.nodes.length) net.kind = "supply";
    else if (net.ends.some((x) => x.def.need && isBusKind(x.def.need.kind))) net.kind = "bus-line";
    if (net.kind === "ground") net.V = exactly(0);
    all.push(net);
  }
  all.forEach((n, i) => (n.id = `n${i + 1}`));
  const byId = new Map(all.map((n) => [n.id, n]));
  const netOf = (t: string) => homes.get(t)!;
  const elements = makeElements(e, netOf);
  elements.push(...moduleLoads(e, elements, netOf));
  const bindings = makeBindings(e, byId, elements, netOf);
  for (const b of bindings) {
    const hostEnd = netOf(`${b.host}.${b.hostPin}`).ends.find((x) => x.ref === b.host && x.pin === b.hostPin);
    if (hostEnd) hostEnd.as = hostAs(b);
  }
  // A board pin at the data-out of a chain whose data-in is free: somebody took the wrong end. The program will drive it.
  for (const inst of e.instances.values())
    for (const g of inst.part.groups) {
      if (g.kind !== "chain" || !g.pins.in || !g.pins.out) continue;
      // A register that reads inputs gives its data to the board on purpose.
      if (bindings.some((b) => b.ref === inst.ref && (b.pin === g.pins.in || b.pin === g.pins.out))) continue;
      for (const end of netOf(`${inst.ref}.${g.pins.out}`).ends)
        if (end.ref !== inst.ref && end.def.offers && e.instances.get(end.ref)!.part.board) end.as = "driver";
    }
  // A host pin that nothing asks for stays an idle input until a program says otherwise. Two boards wired to each other
  // talk in a way that only their programs know: either may drive.
  const bound = new Set(bindings.map((b) => `${b.host}.${b.hostPin}`));
  const isIdle = (x: NetEnd) => x.def.offers && !bound.has(`${x.ref}.${x.pin}`);
  for (const n of all) {
    const idle = n.ends.filter(isIdle);
    const boards = new Set(idle.filter((x) => e.instances.get(x.ref)!.part.board).map((x) => x.ref));
    for (const x of idle) if (x.as !== "driver") x.as = boards.size > 1 && boards.has(x.ref) ? "both" : "none";
  }
  for (const end of e.internalPulls) {
    const { ref, pin } = splitEnd(end);
    const b = bindings.find((x) => x.ref === ref && x.pin === pin);
    const host = b && e.instances.get(b.host);
    const level = host && findPin(host.part, b.hostPin)?.level;
    const set = level ? host.part.levels[level] : undefined;
    if (!b || !host || !set?.pullUp_ohm) continue;
    elements.push({
      ref: host.ref,
      kind: "resistor",
      a: netOf(outerTerminal(e, end)).id,
      b: netOf(supplyNode(host.ref, set.supply)).id,
      ohm: Number(set.pullUp_ohm.max),
      tolerance: 0,
      internal: true,
    });
  }
  const netlist: Netlist = {
    expanded: e,
    nets: all.filter((n) => n.ends.length > 1 || n.nodes.length > 0 || n.ends.some((x) => x.def.need)),
    elements,
    bindings,
    netOf,
    instance: (ref) => e.instances.get(ref),
    level: (ref, pin) => {
      const part = e.instances.get(ref)?.part;
      const p = part && findPin(part, pin);
      return p?.level ? part!.levels[p.level] : undefined;
    },
    wires: e.wires,
  };
  return netlist;
}

export { nameNets };
