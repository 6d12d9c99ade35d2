import type { Net, NetElement, NetEnd, Netlist } from "../netlist/types";
import type { Feed } from "../power/tree";
import { islandsOf, terminals, type Island } from "./islands";
import { follow, look, type Look, type Way } from "./look";
import { castOf, makeOf, type Cast, type Make } from "./make";
import { sceneOf, type Driver, type Scene, type State } from "./model";
import { LOOSE_OHM, prepare } from "./point";
import { statesOf } from "./states";
import { drawBuilds, worst, type Quantity } from "./worst";

/** An end of a range: the usual value there, the value in the worst corner of all tolerances, and when it happens. */
export interface Extreme {
  typ: number;
  worst: number;
  state: State;
}

/** A pin that drives: the most that it has to give and to take, amperes, and what takes it. */
export interface PinCurrent {
  driver: Driver;
  source: Extreme | null;
  sink: Extreme | null;
  /** References of what the current goes through, lights and transistors first. */
  by: string[];
}

/** The larger of what a pin gives and takes. */
export const mostOf = (p: PinCurrent): Extreme | null =>
  (p.source?.worst ?? 0) >= (p.sink?.worst ?? 0) ? p.source : p.sink;

/** What flows through an element in the state in which most does, and the way it comes and goes. */
export interface Flow {
  element: NetElement;
  A: Extreme;
  from: Way;
  to: Way;
}

/** The volts of a net over all its states. */
export interface NetVolts {
  net: Net | undefined;
  id: string;
  high: Extreme;
  low: Extreme;
  /** How the highest voltage comes. */
  from: Way;
  /** In some state nothing but leaks holds it. */
  floats: boolean;
}

/** What is found out island by island. */
interface Found {
  volts: Map<string, NetVolts>;
  flows: Map<NetElement, Flow>;
  pins: Map<string, PinCurrent>;
}

/** The whole circuit solved: every net in every state, every element and every driving pin. */
export interface Solved extends Found {
  scene: Scene;
  islands: Island[];
  /** What the islands with elements are made of. */
  makes: Map<Island, Make>;
  /** The island of a net that is no rail. */
  islandOf(net: string): Island | undefined;
  /** The most by which a net can stand above another node, volts: for ceilings that move with a supply. */
  above(net: string, rail: string): { typ: number; worst: number } | null;
  /** Amperes, without sign, through an element or a driving pin in so many builds, in the state in which most flows. */
  builds(of: Flow | PinCurrent, count: number, roll: () => number): number[];
}

const corner = (l: Look, q: Quantity, want: "min" | "max") => worst(l.p, q, want).value;

/** Light grids are lit one place at a time, which only their program knows: they are judged by their own table. */
const isGrid = (n: Netlist, island: Island) => island.elements.some((e) => n.instance(e.ref)?.part.addresses);

/** Keeps the look in which a value is largest. */
class Most {
  best: { value: number; look: Look } | null = null;
  offer(value: number, l: Look) {
    if (Number.isFinite(value) && (!this.best || value > this.best.value + 1e-12)) this.best = { value, look: l };
  }
}

function solveIsland(scene: Scene, island: Island, out: Found) {
  const n = scene.netlist;
  const byId = new Map(island.nets.map((id) => [id, { high: new Most(), low: new Most(), floats: false }]));
  const amps = new Map(island.elements.map((e) => [e, new Most()]));
  const sources = new Map<string, { d: Driver; source: Most; sink: Most }>();
  for (const state of statesOf(scene, island)) {
    const l = look(scene, island, state);
    for (const [id, seen] of byId) {
      if (!l.p.index.has(id) || l.p.floating.has(id) || l.point.impedance(id) > LOOSE_OHM) {
        seen.floats = true;
        continue;
      }
      const v = l.point.volts(id);
      seen.high.offer(v, l);
      seen.low.offer(-v, l);
    }
    for (const e of l.model.network.elements) {
      const what = l.model.of.get(e)!;
      const I = l.point.amps(e);
      if ("key" in what) {
        const s = sources.get(what.key) ?? { d: what, source: new Most(), sink: new Most() };
        sources.set(what.key, s);
        s.source.offer(I, l);
        s.sink.offer(-I, l);
      } else if (!e.id.endsWith(" body")) amps.get(what)?.offer(Math.abs(I), l);
    }
  }
  const elementIn = (l: Look, what: NetElement | Driver) =>
    l.model.network.elements.find((e) => l.model.of.get(e) === what)!;
  for (const [id, seen] of byId) {
    const [h, lo] = [seen.high.best, seen.low.best];
    if (!h || !lo) continue;
    out.volts.set(id, {
      net: n.nets.find((x) => x.id === id),
      id,
      high: { typ: h.value, worst: corner(h.look, { of: "volts", node: id }, "max"), state: h.look.state },
      low: { typ: -lo.value, worst: corner(lo.look, { of: "volts", node: id }, "min"), state: lo.look.state },
      from: follow(scene, h.look, id, null, true),
      floats: seen.floats,
    });
  }
  for (const [element, most] of amps) {
    const b = most.best;
    if (!b) continue;
    const e = elementIn(b.look, element);
    const I = b.look.point.amps(e);
    const want = I < 0 ? "min" : "max";
    const ends = e.kind === "bjt" ? [e.c, e.e] : e.kind === "fet" ? [e.d, e.s] : [e.a, e.b];
    const [hot, cold] = I < 0 ? [ends[1]!, ends[0]!] : [ends[0]!, ends[1]!];
    const flows = b.value > 1e-9;
    out.flows.set(element, {
      element,
      A: {
        typ: b.value,
        worst: flows ? Math.max(b.value, Math.abs(corner(b.look, { of: "amps", element: e }, want))) : b.value,
        state: b.look.state,
      },
      from: flows ? follow(scene, b.look, hot, element, true) : { passed: [], end: { kind: "open" } },
      to: flows ? follow(scene, b.look, cold, element, false) : { passed: [], end: { kind: "open" } },
    });
  }
  for (const { d, source, sink } of sources.values()) {
    const side = (m: Most, want: "min" | "max"): Extreme | null => {
      const b = m.best;
      if (!b || b.value < 1e-9) return null;
      const e = elementIn(b.look, d);
      return { typ: b.value, worst: Math.abs(corner(b.look, { of: "amps", element: e }, want)), state: b.look.state };
    };
    const most = (source.best?.value ?? 0) > (sink.best?.value ?? 0) ? source : sink;
    const at = most.best?.look;
    const rank = { led: 0, bjt: 1, load: 2, fet: 3, diode: 4, resistor: 5, contact: 6, capacitor: 7 };
    const share = Math.abs(most.best?.value ?? 0) * 0.05;
    const by = at
      ? at.model.network.elements
          .flatMap((e) => {
            const what = at.model.of.get(e)!;
            const I = e.kind === "bjt" ? Math.abs(at.point.base(e)) : Math.abs(at.point.amps(e));
            return "key" in what || I < Math.max(share, 1e-9) ? [] : [what];
          })
          .sort((a, b) => rank[a.kind] - rank[b.kind])
          .map((x) => x.ref)
      : [];
    out.pins.set(d.key, { driver: d, source: side(source, "max"), sink: side(sink, "min"), by: [...new Set(by)] });
  }
}

/** Islands solved before, by what they are made of: an edit solves only what it touched, and alike islands are solved once. */
const memory = new Map<string, Kept>();
const MOST_KEPT = 4000;

/** An island's results beside the things they speak of, in an order that an island of the same make shares. */
interface Kept {
  cast: Cast;
  found: Found;
}

/** The results of an island of the same make, told of this one. */
function transplant(scene: Scene, kept: Kept, cast: Cast, out: Found) {
  const to = new Map<unknown, unknown>();
  const pair = (a: readonly unknown[], b: readonly unknown[]) => a.forEach((x, i) => to.set(x, b[i]));
  pair(kept.cast.nets, cast.nets);
  pair(kept.cast.rails, cast.rails);
  pair(kept.cast.elements, cast.elements);
  pair(kept.cast.drivers, cast.drivers);
  const keys = new Map(kept.cast.drivers.map((d, i) => [d.key, cast.drivers[i]!.key]));
  const refs = new Map(kept.cast.elements.map((e, i) => [e.ref, cast.elements[i]!.ref]));
  const same = <T>(x: T): T => to.get(x) as T;
  const state = (s: State): State => ({
    closed: new Set([...s.closed].map(same)),
    drive: new Map([...s.drive].map(([k, v]) => [keys.get(k)!, v])),
    wiper: s.wiper,
  });
  const extreme = (e: Extreme): Extreme => ({ ...e, state: state(e.state) });
  const way = (w: Way): Way => ({
    passed: w.passed.map(same),
    end:
      w.end.kind === "rail"
        ? { kind: "rail", net: scene.heldNets.get(same(w.end.net.id))! }
        : w.end.kind === "pin"
          ? { kind: "pin", driver: same(w.end.driver) }
          : w.end,
  });
  for (const v of kept.found.volts.values()) {
    const id = same(v.id);
    const net = scene.netlist.nets.find((x) => x.id === id);
    out.volts.set(id, { ...v, id, net, high: extreme(v.high), low: extreme(v.low), from: way(v.from) });
  }
  for (const f of kept.found.flows.values()) {
    const element = same(f.element);
    out.flows.set(element, { element, A: extreme(f.A), from: way(f.from), to: way(f.to) });
  }
  for (const x of kept.found.pins.values()) {
    const driver = same(x.driver);
    const by = [...new Set(x.by.map((ref) => refs.get(ref)!))];
    out.pins.set(driver.key, {
      driver,
      source: x.source && extreme(x.source),
      sink: x.sink && extreme(x.sink),
      by,
    });
  }
}

/** Solves an island, or takes the results of one of the same make. */
function remembered(scene: Scene, island: Island, out: Found): Make {
  const made = makeOf(scene, castOf(scene, island));
  const { cast, text: make } = made;
  const kept = memory.get(make);
  if (kept) {
    transplant(scene, kept, cast, out);
    return made;
  }
  const found: Found = { volts: new Map(), flows: new Map(), pins: new Map() };
  solveIsland(scene, island, found);
  for (const [k, v] of found.volts) out.volts.set(k, v);
  for (const [k, v] of found.flows) out.flows.set(k, v);
  for (const [k, v] of found.pins) out.pins.set(k, v);
  if (memory.size >= MOST_KEPT) memory.clear();
  memory.set(make, { cast, found });
  return made;
}

/** A wire with only pins on it: the strongest high and low of those who drive it, at no current. Nothing to solve. */
function plainWire(scene: Scene, island: Island, out: Found) {
  const [id] = island.nets;
  const list = (scene.drivers.get(id!) ?? []).filter((d) => !d.open);
  const best = [...list].sort((a, b) => b.high.max - a.high.max)[0];
  if (!id || !best) return;
  const state = (level: "high" | "low"): State => ({
    closed: new Set(),
    drive: new Map([[best.key, level]]),
    wiper: 0.5,
  });
  out.volts.set(id, {
    net: scene.netlist.nets.find((x) => x.id === id),
    id,
    high: { typ: best.high.typ, worst: best.high.max, state: state("high") },
    low: { typ: best.low_V, worst: best.low_V, state: state("low") },
    from: { passed: [], end: { kind: "pin", driver: best } },
    floats: list.every((d) => d.host || d.turns),
  });
}

/**
 * Solves the whole circuit: the rails as the supply tree has them, then every island between them in all its states, each
 * quantity at its worst corner in the state in which it is largest.
 */
export function solveCircuit(n: Netlist, feeds: ReadonlyMap<string, Feed>): Solved {
  const scene = sceneOf(n, feeds);
  const home = new Map<string, Island>();
  const places = new Map<string, Island>();
  const between = new Map<NetElement, Island>();
  const out: Solved = {
    scene,
    islands: islandsOf(n, scene.heldNets, feeds),
    makes: new Map(),
    islandOf: (net) => places.get(net),
    volts: new Map(),
    flows: new Map(),
    pins: new Map(),
    above: (net, rail) => {
      const island = home.get(net);
      const s = scene.held.get(rail);
      const here = out.volts.get(net);
      const wire = island?.elements.length ? undefined : here;
      // On a plain wire its driver's supply and the rail move together when one knob turns both.
      if (wire && s && wire.from.end.kind === "pin") {
        const { high } = wire.from.end.driver;
        const together = high.knob !== "" && high.knob === s.knob;
        return {
          typ: wire.high.typ - s.typ,
          worst: together ? Math.max(high.max - s.max, high.min - s.min, high.typ - s.typ) : high.max - s.min,
        };
      }
      if (!island || !here || !s) return null;
      const l = look(scene, island, here.high.state);
      // A rail that is not part of the island is held beside it, so that what moves together is seen to.
      const held = new Map(l.p.net.held).set(rail, s);
      const p = prepare({ ...l.p.net, held });
      return {
        typ: l.point.volts(net) - s.typ,
        worst: worst(p, { of: "volts", node: net, minus: rail }, "max").value,
      };
    },
    builds: (of, count, roll) => {
      const what = "element" in of ? of.element : of.driver;
      const island = islandOf(what);
      const most = "element" in of ? of.A : mostOf(of);
      if (!island || !most) return [];
      const l = look(scene, island, most.state);
      const element = l.model.network.elements.find((e) => l.model.of.get(e) === what);
      return element ? drawBuilds(l.p, { of: "amps", element }, count, roll).map(Math.abs) : [];
    },
  };
  const islandOf = (of: NetElement | Driver) =>
    "key" in of ? home.get(of.net) : (between.get(of) ?? terminals(of).flatMap((id) => home.get(id) ?? [])[0]);
  for (const island of out.islands) {
    if (!island.nets.length) for (const e of island.elements) between.set(e, island);
    for (const id of island.nets) places.set(id, island);
    if (isGrid(n, island)) continue;
    // A wire with nothing but pins on it: whoever drives it sets it, nothing flows.
    for (const id of island.nets) home.set(id, island);
    if (island.elements.length) out.makes.set(island, remembered(scene, island, out));
    else plainWire(scene, island, out);
  }
  return out;
}

export type { NetEnd };
