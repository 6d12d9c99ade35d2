import { evaluate, exactly, type Triple } from "../../quantity";
import type { Level } from "../../parts/catalogue";
import { sourcesOn } from "../power/at";
import type { Feed } from "../power/tree";
import { BIPOLAR_V, outputLine, SLACK_V } from "../netlist/output";
import type { Net, NetElement, NetEnd, Netlist } from "../netlist/types";
import { heldNets, type Island } from "./islands";
import { fixed, type Element, type Network, type Spread } from "./network";

/** The node that everything is measured against. */
export const ZERO = "zero";
/** A closed contact, ohms. */
const CONTACT_OHM = 0.05;
/** A junction begins to conduct at this share of its rated drop, and passes this much at the drop itself, amperes. */
const KNEE = 0.8;
const KNEE_A = 1e-4;
/** What a conducting junction shows besides its drop, ohms: its data gives the drop, spread included. */
const JUNCTION_OHM = 0.001;
/** The usual gain of a transistor is so many times its least, its most so many. */
const GAIN = { typ: 3, max: 8 };
/** A MOSFET's body diode. */
const BODY_V: Triple = { min: 0.5, typ: 0.7, max: 1 };

/** A pin that can drive its net: what it looks like when high and when low. */
export interface Driver {
  key: string;
  net: string;
  ref: string;
  pin: string;
  end: NetEnd;
  level: Level;
  /** Pulls low only; high is whatever the pulls make of it. */
  open: boolean;
  /** A board's pin: it lets go at reset. */
  host: boolean;
  /** One of several lines that drive in turn, as those of a scanned grid of contacts or of a bus. */
  turns: boolean;
  /** Open-circuit volts of a high, and the resistances behind high and low. */
  high: Spread;
  high_ohm: Spread;
  low_ohm: Spread;
  low_V: number;
}

/** One of the ways in which a circuit can stand: contacts, outputs, wipers, loads. */
export interface State {
  closed: ReadonlySet<NetElement>;
  drive: ReadonlyMap<string, "high" | "low">;
  /** Share of a track that lies below its wiper. */
  wiper: number;
}

/** What the whole circuit's islands share: held rails with their knobs, drivers by net. */
export interface Scene {
  netlist: Netlist;
  /** Which converter feeds which net. */
  feeds: ReadonlyMap<string, Feed>;
  held: Map<string, Spread>;
  heldNets: Map<string, Net>;
  drivers: Map<string, Driver[]>;
}

/** What moves a rail: its source, or the regulator that makes it; rails behind a diode or a switch move with their source. */
function knobOf(n: Netlist, feeds: ReadonlyMap<string, Feed>, net: Net): string {
  let at = net.id;
  const byId = new Map(n.nets.map((x) => [x.id, x]));
  for (let step = 0; step < 20; step++) {
    const here = byId.get(at);
    const source = here && sourcesOn(n, here)[0];
    if (source) return source.ref;
    const feed = feeds.get(at);
    if (!feed) return net.id;
    if (feed.converter.kind === "linear" || feed.converter.kind === "switching")
      return `${feed.ref}:${feed.converter.to}`;
    at = feed.from;
  }
  return net.id;
}

function driverOf(
  n: Netlist,
  scanned: ReadonlySet<string>,
  held: Map<string, Net>,
  spreadOf: (net: Net) => Spread,
  net: Net,
  end: NetEnd,
): Driver | null {
  const level = n.level(end.ref, end.pin);
  if (!level || level.output === "none") return null;
  const supply = n.netOf(`${end.ref}:${level.supply}`);
  const V = supply.kind === "ground" ? null : supply.V;
  if (!V || !held.has(supply.id)) return null;
  const inst = n.instance(end.ref)!;
  const vars = inst.vars;
  const high = outputLine(level, V.min, vars, "VOH");
  const low = outputLine(level, V.min, vars, "VOL");
  const outMax = level.outMax === undefined ? Infinity : evaluate(level.outMax, { ...vars, V: V.max });
  const key = `${end.ref}.${end.pin}`;
  const ohms = (most: number): Spread => {
    const typ = Math.min(most, level.outTyp_ohm === undefined ? most / 2 : evaluate(level.outTyp_ohm, vars));
    return { min: 1e-3, typ: Math.max(typ, 1e-3), max: Math.max(most, typ, 1e-3), knob: `${key} out` };
  };
  // A drop of bipolar outputs is there with every piece, only less; that of CMOS outputs is a matter of the current.
  const drop = Math.max(0, V.min - high.V0);
  const kept = drop >= BIPOLAR_V - SLACK_V ? drop : 0;
  const top: Triple = {
    min: Math.min(high.V0, outMax),
    typ: Math.min(outMax, V.typ - 0.75 * kept),
    // A guaranteed drop of half a volt is what the data promises, not what every piece keeps.
    max: Math.min(outMax, V.max - (kept > BIPOLAR_V + SLACK_V ? 0.5 * kept : 0)),
  };
  return {
    key,
    net: net.id,
    ref: end.ref,
    pin: end.pin,
    end,
    level,
    open:
      level.output === "open-drain" || (end.as === "both" && net.kind === "bus-line" && end.def.need?.kind !== "spi"),
    host: inst.part.board !== undefined,
    turns: end.as === "both" || scanned.has(key),
    high: { ...top, knob: spreadOf(supply).knob },
    high_ohm: ohms(high.ohm),
    low_ohm: ohms(low.ohm),
    low_V: Math.max(0, low.V0),
  };
}

/** Rails, knobs and drivers of a whole circuit. `feeds`: which converter feeds which net, as the voltages were resolved. */
export function sceneOf(n: Netlist, feeds: ReadonlyMap<string, Feed>): Scene {
  const nets = heldNets(n);
  const held = new Map<string, Spread>([[ZERO, fixed(0)]]);
  const spreadOf = (net: Net): Spread =>
    held.get(net.id) ?? { ...(net.V ?? exactly(0)), knob: net.kind === "ground" ? "" : knobOf(n, feeds, net) };
  for (const net of nets.values()) held.set(net.id, spreadOf(net));
  const drivers = new Map<string, Driver[]>();
  // Lines that read contacts are driven one after the other, and let go in between.
  const scanned = new Set(
    n.bindings.flatMap((b) =>
      n.instance(b.ref)?.part.elements.some((e) => e.kind === "contact") ? [`${b.host}.${b.hostPin}`] : [],
    ),
  );
  for (const net of n.nets) {
    if (nets.has(net.id)) continue;
    const list = net.ends.flatMap((end) =>
      end.as === "driver" || end.as === "both" ? (driverOf(n, scanned, nets, spreadOf, net, end) ?? []) : [],
    );
    if (list.length) drivers.set(net.id, list);
  }
  return { netlist: n, feeds, held, heldNets: nets, drivers };
}

/** A network of an island in a state, with what each of its elements stands for. */
export interface Model {
  network: Network;
  of: Map<Element, NetElement | Driver>;
}

const junction = (Vf: Triple, knob: string) => ({
  Vf: { ...Vf, knob },
  ohm: JUNCTION_OHM,
  knee: KNEE,
  knee_ohm: (Vf.typ * (1 - KNEE)) / KNEE_A,
});

/** A variable track's side at a wiper's place: neither side is ever quite nothing. */
const sideOhm = (e: NetElement, wiper: number) => {
  const low = e.def?.kind === "resistor" && e.def.track === "low";
  return Math.max(2 * e.ohm! * (low ? wiper : 1 - wiper), 1);
};

/** A junction's voltage falls by about this for every tenth of its current (two thermal voltages times ln 10). */
const PER_DECADE_V = 0.12;
/** The current for which data sheets give a forward voltage, amperes. */
const RATED_A = 0.01;
/** Unit and temperature spread of a junction at a small current, where the resistance of its material does not count, volts. */
const SMALL_SPREAD_V = 0.05;
/** Forward voltage at a small current, from the usual figure at 10 mA; never below a fifth of a volt. */
export const dropAt = (Vf: Triple, A: number): Triple => {
  if (A >= RATED_A) return Vf;
  const typ = Math.max(0.2, Vf.typ - PER_DECADE_V * Math.log10(RATED_A / Math.max(A, 1e-7)));
  return { min: Math.max(0.15, typ - SMALL_SPREAD_V), typ, max: typ + SMALL_SPREAD_V };
};

/**
 * Lays an island out in a state. Elements that are open there are left out. `small`: junctions whose current is known to be
 * far below the rated one, with that current, amperes.
 */
export function modelOf(scene: Scene, island: Island, state: State, small?: ReadonlyMap<NetElement, number>): Model {
  const of: Model["of"] = new Map();
  const elements: Element[] = [];
  const held = new Map<string, Spread>([[ZERO, fixed(0)]]);
  const hold = (id: string) => {
    const s = scene.held.get(id);
    if (s) held.set(id, s);
    return id;
  };
  const put = (e: Element, what: NetElement | Driver) => {
    elements.push(e);
    of.set(e, what);
  };
  island.elements.forEach((e, i) => {
    const id = `${e.ref}#${i}`;
    const [a, b] = [hold(e.a), hold(e.b)];
    switch (e.kind) {
      case "resistor": {
        const ohm = e.def?.kind === "resistor" && e.def.track ? sideOhm(e, state.wiper) : e.ohm!;
        const t = e.tolerance ?? 0;
        const spread = e.span
          ? { min: e.span.min, typ: ohm, max: e.span.max, knob: id }
          : { min: ohm * (1 - t), typ: ohm, max: ohm * (1 + t), knob: id };
        return put({ kind: "resistor", id, a, b, ohm: spread }, e);
      }
      case "contact":
        if (state.closed.has(e)) put({ kind: "resistor", id, a, b, ohm: fixed(CONTACT_OHM) }, e);
        return;
      case "diode":
      case "led":
        return put({ kind: "diode", id, a, b, ...junction(dropAt(e.Vf!, small?.get(e) ?? Infinity), id) }, e);
      case "load": {
        const V = e.def?.kind === "load" ? evaluate(e.def.V.typ, scene.netlist.instance(e.ref)!.vars) : 5;
        const A = e.A!;
        if (A.peak <= 0) return;
        const typ = V / Math.max(A.typ, 1e-6);
        return put({ kind: "resistor", id, a, b, ohm: { min: V / A.peak, typ, max: typ, knob: id } }, e);
      }
      case "bjt": {
        if (e.def?.kind !== "bjt" || !e.control) return;
        const d = e.def;
        const Vbe = { min: Number(d.Vbe.min), typ: Number(d.Vbe.typ), max: Number(d.Vbe.max), knob: id };
        const gain = { min: d.hFE_min, typ: d.hFE_min * GAIN.typ, max: d.hFE_min * GAIN.max, knob: `${id} gain` };
        const base = hold(e.control);
        return put({ kind: "bjt", id, npn: d.type === "npn", b: base, c: a, e: b, Vbe, gain, sat_V: d.VCEsat_V }, e);
      }
      case "fet": {
        if (e.def?.kind !== "fet" || !e.control) return;
        const d = e.def;
        const least = [...d.on].sort((x, y) => x.Vgs - y.Vgs)[0]!;
        const Vth = { min: Number(d.Vth.min), typ: Number(d.Vth.typ), max: Number(d.Vth.max), knob: id };
        const n = d.type === "n";
        const gate = hold(e.control);
        put({ kind: "fet", id, n, g: gate, d: a, s: b, Vth, ohm: least.ohm, full_V: least.Vgs }, e);
        return put({ kind: "diode", id: `${id} body`, a: n ? b : a, b: n ? a : b, ...junction(BODY_V, "") }, e);
      }
      case "capacitor":
        return;
    }
  });
  for (const net of island.nets)
    for (const d of scene.drivers.get(net) ?? []) {
      const drive = state.drive.get(d.key);
      if (!drive || (d.open && drive === "high")) continue;
      const node = `${d.key} ${drive}`;
      held.set(node, drive === "high" ? d.high : fixed(d.low_V));
      put({ kind: "resistor", id: d.key, a: node, b: net, ohm: drive === "high" ? d.high_ohm : d.low_ohm }, d);
    }
  return { network: { elements, held }, of };
}
