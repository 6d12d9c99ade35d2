import { evaluate, type Triple } from "../../quantity";
import type { Converter } from "../../parts/catalogue";
import type { Net, Netlist } from "../netlist/types";
import { sourcesOn } from "./at";

/** Current in amperes by state. */
export interface Load {
  idle: number;
  typ: number;
  peak: number;
}

/** A load between rails and pins, as the solved circuit has it: from which net, and at which part or node of it. */
export interface ExtraLoad {
  net: string;
  node: string;
  ref: string;
  label: string;
  flow: Load;
}

/** A limit in the supply tree and what flows through it. */
export interface PowerLimit {
  id: string;
  ref: string;
  kind: "source" | "converter";
  says: string;
  net: string;
  limit_A: number;
  flow: Load;
  /** What hangs below, biggest peak first. */
  loads: { ref: string; label: string; flow: Load }[];
}

/** A regulator, diode or fuse that feeds a rail, what goes in and what comes out. */
export interface Stage extends Feed {
  in: Load;
  out: Load;
}

export interface PowerReport {
  limits: PowerLimit[];
  stages: Stage[];
  /** What hangs on each supply net itself, by net. */
  own: Map<string, { ref: string; node: string; label: string; flow: Load }[]>;
  /** Per supply net: what it gives (null: nothing feeds it) and what is drawn from it. */
  rails: { net: string; name: string; V: Triple | null; flow: Load; feeds: string[]; from: string | null }[];
}

export interface Feed {
  ref: string;
  converter: Converter;
  from: string;
  to: string;
  /** Where the current goes in and comes out: `REF:supply` of a part that feeds a rail, `REF.PIN` of a loose part in the wire. */
  fromNode: string;
  toNode: string;
}

const zero = (): Load => ({ idle: 0, typ: 0, peak: 0 });
const add = (a: Load, b: Load, f = { idle: 1, typ: 1, peak: 1 }): Load => ({
  idle: a.idle + b.idle * f.idle,
  typ: a.typ + b.typ * f.typ,
  peak: a.peak + b.peak * f.peak,
});

/** Every way in which a supply net may feed another: the parts' own converters, and loose parts in a supply's wire. */
export function feedsOf(n: Netlist): Feed[] {
  const out: Feed[] = [];
  for (const inst of n.expanded.instances.values())
    for (const converter of inst.part.converters)
      out.push({
        ref: inst.ref,
        converter,
        from: n.netOf(`${inst.ref}:${converter.from}`).id,
        to: n.netOf(`${inst.ref}:${converter.to}`).id,
        fromNode: `${inst.ref}:${converter.from}`,
        toNode: `${inst.ref}:${converter.to}`,
      });
  return [...out, ...looseFeeds(n)];
}

/** A shunt or fuse lets a supply through, a larger resistor does not. */
const PASSES_OHM = 1;

/** Loose parts in a supply's wire: a switch or contact (closed), a diode (one way), a fuse or shunt. */
function looseFeeds(n: Netlist): Feed[] {
  const supply = new Map(n.nets.filter((x) => x.kind === "supply").map((x) => [x.id, x]));
  const zero = { min: 0, typ: 0, max: 0 };
  return n.elements.flatMap((el): Feed[] => {
    const [a, b] = [supply.get(el.a), supply.get(el.b)];
    const through = el.kind === "contact" || el.kind === "diode" || (el.kind === "resistor" && el.ohm! <= PASSES_OHM);
    if (!a || !b || a === b || !through) return [];
    const pin = (net: Net) => net.ends.find((e) => e.ref === el.ref);
    const [pa, pb] = [pin(a), pin(b)];
    if (!pa || !pb) return [];
    const says = el.kind === "diode" ? "the diode in the wire" : el.kind === "contact" ? "the switch in the wire" : "";
    const feed = (from: Net, to: Net, at: string, out: string): Feed => ({
      ref: el.ref,
      converter: {
        from: at,
        to: out,
        kind: el.kind === "diode" ? "diode" : "wire",
        drop_V: el.Vf ?? zero,
        limit_mA: el.max_A ? el.max_A * 1000 : Infinity,
        says: says || "the resistor in the wire",
      },
      from: from.id,
      to: to.id,
      fromNode: `${el.ref}.${at}`,
      toNode: `${el.ref}.${out}`,
    });
    const forth = feed(a, b, pa.pin, pb.pin);
    return el.kind === "diode" ? [forth] : [forth, feed(b, a, pb.pin, pa.pin)];
  });
}

/**
 * Output of a converter for an input range, volts. Drop-out pulls the lower bounds down, never the upper; a switching
 * converter that names a drop-out can only step down. `vars` are the part's options.
 */
export function converterOutput(c: Converter, vin: Triple, vars: Record<string, number> = {}): Triple {
  const drop = c.drop_V ?? { min: 0, typ: 0, max: 0 };
  const value = (x: number | string) => evaluate(x, vars);
  if (c.kind === "wire" || c.kind === "fuse" || c.kind === "diode")
    return { min: vin.min - value(drop.max), typ: vin.typ - value(drop.typ), max: vin.max - value(drop.min) };
  const out = c.V ?? { min: 0, typ: 0, max: 0 };
  const lifts = c.kind === "switching" && c.dropout_V === undefined;
  const capped = (v: number, v0: number) => {
    if (lifts) return c.passes ? Math.max(v, v0) : v;
    return Math.max(0, Math.min(v, v0 - (c.dropout_V ?? 0)));
  };
  return {
    min: capped(value(out.min), vin.min),
    typ: capped(value(out.typ), vin.typ),
    max: capped(value(out.max), vin.max),
  };
}

/** What a computer's USB port gives, volts (USB 2.0, table 7-7: at the end of a cable). */
const COMPUTER_V: Triple = { min: 4.75, typ: 5, max: 5.25 };

/** A module with a USB plug of its own, such as a serial adapter, is fed by the computer that it is plugged into. */
function fromComputer(n: Netlist, net: Net): Triple | undefined {
  const own = net.nodes.some(({ ref, supply }) => {
    const part = supply ? n.instance(ref)?.part : undefined;
    const plug = part?.pins.find((p) => p.role === "cable" && p.supply === supply);
    const linked = plug && n.wires.some((w) => w.cable && [w.from, w.to].some((e) => e.ref === ref));
    return plug && !linked && !part!.board && !Object.values(part!.supplies).some((s) => s.source);
  });
  return own ? COMPUTER_V : undefined;
}

/**
 * Resolves the voltage of every supply net from the sources through the boards' regulators, and writes it into the
 * nets. A converter feeds a net only when its own input is fed and no source sits on the net itself.
 */
export function resolveVoltages(n: Netlist): Map<string, Feed> {
  const feeds = feedsOf(n);
  const chosen = new Map<string, Feed>();
  const byId = new Map(n.nets.map((x) => [x.id, x]));
  const busy = new Set<string>();
  const done = new Set<string>();
  const visit = (net: Net): Triple | null => {
    if (net.kind === "ground") return net.V;
    if (done.has(net.id) || busy.has(net.id)) return net.V;
    busy.add(net.id);
    const s = sourcesOn(n, net)[0];
    const plugged = s ? undefined : fromComputer(n, net);
    if (plugged) net.V = plugged;
    else if (s) {
      const value = (x: number | string) => evaluate(x, s.inst.vars);
      net.V = { min: value(s.source.V.min), typ: value(s.source.V.typ), max: value(s.source.V.max) };
    } else
      for (const f of feeds.filter((x) => x.to === net.id)) {
        const from = byId.get(f.from);
        const vin = from ? visit(from) : null;
        if (!vin || from!.kind === "ground") continue;
        net.V = converterOutput(f.converter, vin, n.instance(f.ref)?.vars);
        chosen.set(net.id, f);
        break;
      }
    busy.delete(net.id);
    done.add(net.id);
    return net.V;
  };
  for (const net of n.nets) if (net.kind === "supply") visit(net);
  return chosen;
}

/** Loads that the parts put on each supply net, in amperes. `extra` adds what flows between rails and pins. */
function ownLoads(n: Netlist, extra: ExtraLoad[]) {
  const out: PowerReport["own"] = new Map();
  const push = (net: string, x: { ref: string; node: string; label: string; flow: Load }) =>
    out.set(net, [...(out.get(net) ?? []), x]);
  for (const inst of n.expanded.instances.values())
    for (const [key, s] of Object.entries(inst.part.supplies)) {
      if (!s.mA) continue;
      const amps = (x: number | string) => evaluate(x, inst.vars) / 1000;
      push(n.netOf(`${inst.ref}:${key}`).id, {
        ref: inst.ref,
        node: `${inst.ref}:${key}`,
        label: inst.label,
        flow: { idle: amps((inst.sleep && s.mA.asleep) ?? s.mA.idle), typ: amps(s.mA.typ), peak: amps(s.mA.peak) },
      });
    }
  for (const { net, ...x } of extra) push(net, x);
  return out;
}

/**
 * The supply tree: what flows through every source and regulator, by state, in amperes. A switching converter draws
 * I·Vout/(Vin·efficiency), everything else passes its current on. Call after `resolveVoltages`.
 */
export function powerReport(n: Netlist, chosen: Map<string, Feed>, extra: ExtraLoad[] = []): PowerReport {
  const loads = ownLoads(n, extra);
  const byId = new Map(n.nets.map((x) => [x.id, x]));
  const limits: PowerLimit[] = [];
  const stages: Stage[] = [];
  const memo = new Map<string, { flow: Load; loads: PowerLimit["loads"]; feeds: string[] }>();
  const demand = (id: string) => {
    const known = memo.get(id);
    if (known) return known;
    const own = loads.get(id) ?? [];
    let total: { flow: Load; loads: PowerLimit["loads"]; feeds: string[] } = {
      flow: own.reduce((sum, l) => add(sum, l.flow), zero()),
      loads: [...own],
      feeds: [],
    };
    memo.set(id, total);
    for (const [to, f] of chosen) {
      if (f.from !== id || to === id) continue;
      const below = demand(to);
      const [vin, vout] = [byId.get(id)!.V!, byId.get(to)!.V!];
      const ratio =
        f.converter.kind === "switching" ? vout.max / (Math.max(vin.min, 0.1) * (f.converter.efficiency ?? 0.8)) : 1;
      const scale = { idle: ratio, typ: ratio, peak: ratio };
      total = {
        flow: add(total.flow, below.flow, scale),
        loads: [...total.loads, ...below.loads.map((l) => ({ ...l, flow: add(zero(), l.flow, scale) }))],
        feeds: [...total.feeds, to],
      };
    }
    memo.set(id, total);
    return total;
  };
  // A step-down or step-up stage draws another current than it gives.
  const through = (f: Feed, out: Load): Load => {
    if (f.converter.kind !== "switching") return out;
    const [vin, vout] = [byId.get(f.from)!.V!, byId.get(f.to)!.V!];
    const ratio = vout.max / (Math.max(vin.min, 0.1) * (f.converter.efficiency ?? 0.8));
    return add(zero(), out, { idle: ratio, typ: ratio, peak: ratio });
  };
  const big = (l: PowerLimit["loads"]) => [...l].sort((a, b) => b.flow.peak - a.flow.peak || (a.ref < b.ref ? -1 : 1));
  for (const net of n.nets) {
    if (net.kind !== "supply") continue;
    const d = demand(net.id);
    const s = sourcesOn(n, net)[0];
    if (s)
      limits.push({
        id: `${s.ref}:source`,
        ref: s.ref,
        kind: "source",
        says: s.supply.label,
        net: net.id,
        limit_A: evaluate(s.source.limit_mA, s.inst.vars) / 1000,
        flow: d.flow,
        loads: big(d.loads),
      });
    const f = chosen.get(net.id);
    if (f) stages.push({ ...f, in: through(f, d.flow), out: d.flow });
    if (f && Number.isFinite(f.converter.limit_mA))
      limits.push({
        id: `${f.ref}:${f.converter.from}>${f.converter.to}`,
        ref: f.ref,
        kind: "converter",
        says: f.converter.says,
        net: net.id,
        limit_A: f.converter.limit_mA / 1000,
        flow: d.flow,
        loads: big(d.loads),
      });
  }
  const rails = n.nets
    .filter((x) => x.kind === "supply" && (x.V || loads.has(x.id)))
    .map((x) => ({
      net: x.id,
      name: x.name,
      V: x.V,
      flow: demand(x.id).flow,
      feeds: demand(x.id).feeds,
      from: chosen.get(x.id)?.from ?? null,
    }));
  return { limits, stages, own: loads, rails };
}
