import { evaluate, type Triple } from "../../quantity";
import type { Level } from "../../parts/catalogue";
import type { Net, NetElement, NetEnd, Netlist } from "../netlist/types";
import type { Island } from "./islands";
import { follow, look, type Look } from "./look";
import { castOf, makeOf, type Make } from "./make";
import type { Driver, Scene, State } from "./model";
import { at as atCorner, type Spread } from "./network";
import { LOOSE_OHM, prepare, type Prepared } from "./point";
import { reachOf, type Reach } from "./reach";
import type { Solved } from "./solved";
import { contactSets } from "./states";
import { worst } from "./worst";

/** One driver (or a line that pulls or contacts lift) against one receiver: worst-case volts and margins. */
export interface LevelVerdict {
  net: Net;
  driver: {
    ref: string;
    pin: string;
    net: string;
    supplyNet: string;
    V: Triple;
    how: "push-pull" | "pull-up" | "contact" | "diode";
  };
  receiver: { ref: string; pin: string; net: string; supplyNet: string; V: Triple };
  /** Volts that reach the receiver: guaranteed high, guaranteed low, highest possible. */
  high_V: number;
  low_V: number;
  highest_V: number;
  VIH: number;
  VIL: number;
  ceiling: number;
  marginHigh: number;
  marginLow: number;
  /** The margins in the usual case: where they hold, only a corner of the tolerances fails. */
  usualHigh: number;
  usualLow: number;
  /** An analogue signal has no thresholds: only the ceiling is judged, the margins are infinite. */
  analog: boolean;
}

type Numbers = Pick<
  LevelVerdict,
  "high_V" | "low_V" | "highest_V" | "VIH" | "VIL" | "ceiling" | "marginHigh" | "marginLow" | "usualHigh" | "usualLow"
>;

/** Rails of one nominal voltage from two sources stand closely enough together to be compared at their nominal value. */
const SAME_NOMINAL_V = 0.25;
/** A contact or junction passes a signal when what the driver does moves the far end by as much as this, volts. */
const MOVES_V = 0.05;
/** A contact is meant to be read when it moves its line by this share of the reader's supply. */
const READ_SHARE = 0.2;

const ANALOG_NEEDS = new Set(["adc", "dac"]);

/** A pin that reads: its data, its supply, and the knob that this supply hangs on. */
interface Reader {
  end: NetEnd;
  net: Net;
  level: Level;
  supplyNet: Net;
  V: Triple;
  rail: Spread;
  vars: Record<string, number>;
  measured: boolean;
}

/** A threshold or ceiling as a line over the reader's supply. */
interface Line {
  at(V: number): number;
  slope: number;
}

function lineOf(x: number | string | undefined, r: Reader): Line {
  const at = (V: number) => evaluate(x ?? 0, { ...r.vars, V });
  const span = r.V.max - r.V.min;
  return { at, slope: span > 1e-6 ? (at(r.V.max) - at(r.V.min)) / span : 0 };
}

/** What a reader is compared with: rails that one knob turns, rails of one nominal voltage, or strangers. */
type Kinship = "moves with it" | "same nominal" | "apart";

function kinship(r: Reader, rails: readonly Spread[]): Kinship {
  if (rails.every((s) => s.knob !== "" && s.knob === r.rail.knob)) return "moves with it";
  if (rails.every((s) => Math.abs(s.typ - r.V.typ) <= SAME_NOMINAL_V)) return "same nominal";
  return "apart";
}

/** Volts at a reader in one state against a line over its supply: the worst corner of both, and the usual difference. */
interface Compared {
  V: number;
  limit: number;
  usual: number;
}

/** Of two differences the one that leaves less. */
const less = (sign: number, a: Compared, b: Compared) =>
  (a.V - a.limit) * sign < (b.V - b.limit) * sign - 1e-9 ? a : b;

/** A ceiling that is kept wherever the supply stands is told at the highest supply, where the volts are highest. */
const told = (found: Compared, kin: Kinship) => kin === "moves with it" && found.V <= found.limit;

/** A wire whose volts are a spread of their own: nothing flows, no network to solve. `sign` 1: V must be above the line. */
function compareSpread(s: Spread, r: Reader, kin: Kinship, line: Line, sign: 1 | -1, ceiling: boolean): Compared {
  const usual = s.typ - line.at(r.V.typ);
  const end = sign > 0 ? "min" : "max";
  if (kin === "same nominal") return { V: s[end], limit: line.at(r.V.typ), usual };
  const pairs: Compared[] =
    kin === "moves with it"
      ? (["min", "typ", "max"] as const).map((p) => ({ V: s[p], limit: line.at(r.V[p]), usual }))
      : [r.V.min, r.V.max].map((V) => ({ V: s[end], limit: line.at(V), usual }));
  const found = pairs.reduce((a, b) => less(sign, a, b));
  return ceiling && told(found, kin) ? { V: s.max, limit: line.at(r.V.max), usual } : found;
}

/** Volts of a solved state against a line over the reader's supply. */
function compareLook(l: Look, r: Reader, kin: Kinship, line: Line, sign: 1 | -1, ceiling: boolean): Compared {
  const node = r.net.id;
  const want = sign > 0 ? "min" : "max";
  const usual = l.point.volts(node) - line.at(r.V.typ);
  const plain = () => worst(l.p, { of: "volts", node }, want).value;
  if (kin === "same nominal") return { V: plain(), limit: line.at(r.V.typ), usual };
  if (!line.slope) return { V: plain(), limit: line.at(r.V.typ), usual };
  const w = worst(withRail(l.p, r), { of: "volts", node, minus: r.supplyNet.id, times: line.slope }, want);
  const found = { V: w.point.volts(node), limit: line.at(atCorner(r.rail, w.corner)), usual };
  return ceiling && told(found, kin) ? { V: plain(), limit: line.at(r.V.max), usual } : found;
}

/** The reader's supply beside a network that it is no part of, so that what moves together is seen to. */
function withRail(p: Prepared, r: Reader): Prepared {
  if (p.net.held.has(r.supplyNet.id)) return p;
  return prepare({ ...p.net, held: new Map(p.net.held).set(r.supplyNet.id, r.rail) });
}

const free = (r: Reader, analog: boolean) => analog || r.level.VIH === undefined;

type Comparison = (line: Line, sign: 1 | -1, ceiling: boolean) => Compared;

function numbers(r: Reader, analog: boolean, high: Comparison, low: Comparison | null): Numbers {
  const VIH = lineOf(r.level.VIH, r);
  const h = high(VIH, 1, false);
  const top = high(lineOf(r.level.absMax, r), -1, true);
  const l = low?.(lineOf(r.level.VIL, r), -1, false);
  const none = free(r, analog);
  return {
    high_V: h.V,
    low_V: l?.V ?? 0,
    highest_V: top.V,
    VIH: h.limit,
    VIL: l?.limit ?? lineOf(r.level.VIL, r).at(r.V.min),
    ceiling: top.limit,
    marginHigh: none ? Infinity : h.V - h.limit,
    marginLow: none || !l ? Infinity : l.limit - l.V,
    usualHigh: none ? Infinity : h.usual,
    usualLow: none || !l ? Infinity : -l.usual,
  };
}

/** Who drives and who reads in an island, and what one memory of it needs to be told of another of the same make. */
interface Setting {
  scene: Scene;
  island: Island;
  drivers: Driver[];
  readers: Reader[];
  /** Ids of the rails that the island hangs on. */
  rails: string[];
  isAnalog(d: Driver | null, r: Reader): boolean;
}

/** A pair as it is remembered: who by number, and the numbers. */
interface Judged extends Numbers {
  driver: number | null;
  /** Where no pin drives: the element that lifts the line, and the rail behind it. */
  by: { element: number; rail: number } | null;
  reader: number;
  how: LevelVerdict["driver"]["how"];
}

const drives = (n: Netlist, e: NetEnd) =>
  (e.as === "driver" || e.as === "both") && n.level(e.ref, e.pin)?.output !== "none";

const bare = (l: Look, node: string) =>
  !l.p.index.has(node) || l.p.floating.has(node) || l.point.impedance(node) > LOOSE_OHM;

const withoutGrids = (n: Netlist, island: Island): Island => ({
  ...island,
  elements: island.elements.filter((e) => !n.instance(e.ref)?.part.addresses),
});

/** Supplies that resistors of the island lead to. */
const pullRails = (s: Setting): Spread[] =>
  s.island.elements.flatMap((e) =>
    e.kind === "resistor"
      ? [e.a, e.b].flatMap((id) => (s.scene.heldNets.get(id)?.kind === "supply" ? [s.scene.held.get(id)!] : []))
      : [],
  );

/** Signals pass junctions at the small current of a pull, where they drop less than their data says: solved again with that. */
function withSmallDrops(s: Setting, state: State, first: Look): Look {
  const small = new Map<NetElement, number>();
  for (const e of first.model.network.elements) {
    const what = first.model.of.get(e)!;
    const I = e.kind === "diode" && !("key" in what) && !e.id.endsWith(" body") ? first.point.amps(e) : 0;
    if (I > 1e-6 && I < 1e-3) small.set(what as NetElement, I);
  }
  return small.size ? look(s.scene, s.island, state, small) : first;
}

/** Looks at an island's states, each once. */
function looker(s: Setting) {
  const seen = new Map<string, Look>();
  return (contacts: readonly NetElement[], d: Driver | null, drive: "high" | "low") => {
    const key = `${contacts.map((e) => s.island.elements.indexOf(e)).join()} ${d?.key ?? ""} ${d ? drive : ""}`;
    const known = seen.get(key);
    if (known) return known;
    const state: State = { closed: new Set(contacts), drive: new Map(d ? [[d.key, drive]] : []), wiper: 0.5 };
    const made = withSmallDrops(s, state, look(s.scene, s.island, state));
    seen.set(key, made);
    return made;
  };
}

type LookAt = ReturnType<typeof looker>;

/** Whether a way through more than resistors is one that a signal is meant to take. */
function meant(s: Setting, d: Driver, r: Reader, reach: Reach): boolean {
  if (!reach.through) return true;
  if (
    r.level.VIH === undefined ||
    s.scene.netlist.nets.some((x) => x.id === r.net.id && x.ends.some((e) => e.as === "driver"))
  )
    return false;
  return reach.through.kind === "fet" ? true : r.end.as === "receiver" && !d.open;
}

function judgeDriver(s: Setting, lookAt: LookAt, d: Driver, i: number, pulled: Spread[]): Judged[] {
  const reach = reachOf(s.island, d.net);
  if (d.open && !pulled.length) return [];
  return s.readers.flatMap((r, j): Judged[] => {
    const way = reach.get(r.net.id);
    if (!way || r.end === d.end || !meant(s, d, r, way)) return [];
    // A board reads its own lines through a grid of contacts; on one wire it knows what it does.
    if (r.end.ref === d.ref && !way.through) return [];
    const high = lookAt(way.contacts, d.open ? null : d, "high");
    const low = lookAt(way.contacts, d, "low");
    if (bare(high, r.net.id) || bare(low, r.net.id)) return [];
    if (way.through && Math.abs(high.point.volts(r.net.id) - low.point.volts(r.net.id)) < MOVES_V) return [];
    const supply = s.scene.held.get(s.scene.netlist.netOf(`${d.ref}:${d.level.supply}`).id);
    const kin = kinship(r, d.open ? pulled : supply ? [supply] : []);
    const analog = s.isAnalog(d, r);
    return [
      {
        driver: i,
        by: null,
        reader: j,
        how: way.through ? (way.contacts.length ? "contact" : "diode") : d.open ? "pull-up" : "push-pull",
        ...numbers(
          r,
          analog,
          (...x) => compareLook(high, r, kin, ...x),
          (...x) => compareLook(low, r, kin, ...x),
        ),
      },
    ];
  });
}

/** A line that no pin drives: what pulls and contacts make of it, in the states in which it stands highest and lowest. */
function judgePassive(s: Setting, lookAt: LookAt, r: Reader, j: number, sets: ReadonlySet<NetElement>[]): Judged[] {
  const n = s.scene.netlist;
  const within = reachOf(s.island, r.net.id);
  const driven = n.nets.some((x) => within.get(x.id)?.through === null && x.ends.some((e) => drives(n, e)));
  if (driven || r.end.as !== "receiver") return [];
  const looks = sets.map((c) => lookAt([...c], null, "high")).filter((l) => !bare(l, r.net.id));
  const volts = (l: Look) => l.point.volts(r.net.id);
  if (!looks.length) return [];
  const high = looks.reduce((a, b) => (volts(b) > volts(a) + 1e-9 ? b : a));
  const low = looks.reduce((a, b) => (volts(b) < volts(a) - 1e-9 ? b : a));
  const way = follow(s.scene, high, r.net.id, null, true);
  const by = way.passed.at(-1);
  if (way.end.kind !== "rail" || way.end.net.kind !== "supply" || !by || by.kind === "load") return [];
  const rail = s.scene.held.get(way.end.net.id)!;
  const kin = kinship(r, [rail]);
  const read = volts(high) - volts(low) > READ_SHARE * r.V.typ;
  const found = numbers(
    r,
    s.isAnalog(null, r),
    (...x) => compareLook(high, r, kin, ...x),
    read ? (...x) => compareLook(low, r, kin, ...x) : null,
  );
  const sound = found.marginHigh >= 0 && found.marginLow >= 0;
  if (way.end.net.id === r.supplyNet.id && sound) return [];
  const how = way.passed.some((e) => e.kind === "contact") ? "contact" : "pull-up";
  return [
    {
      driver: null,
      by: { element: s.island.elements.indexOf(by), rail: s.rails.indexOf(way.end.net.id) },
      reader: j,
      how,
      ...found,
    },
  ];
}

const memory = new Map<string, Judged[]>();
const MOST_KEPT = 4000;

function judgeIsland(s: Setting): Judged[] {
  const lookAt = looker(s);
  const pulled = pullRails(s);
  const sets = contactSets(s.scene.netlist, s.island);
  return [
    ...s.drivers.flatMap((d, i) => judgeDriver(s, lookAt, d, i, pulled)),
    ...s.readers.flatMap((r, j) => judgePassive(s, lookAt, r, j, sets)),
  ];
}

/** A wire with only pins on it. */
function judgeWire(s: Setting): Judged[] {
  return s.drivers.flatMap((d, i) => {
    const supply = s.scene.held.get(s.scene.netlist.netOf(`${d.ref}:${d.level.supply}`).id);
    if (d.open || !supply) return [];
    const low: Spread = { min: d.low_V, typ: d.low_V, max: d.low_V, knob: "" };
    return s.readers.flatMap((r, j): Judged[] => {
      if (r.end === d.end || r.end.ref === d.ref) return [];
      const kin = kinship(r, [supply]);
      return [
        {
          driver: i,
          by: null,
          reader: j,
          how: "push-pull",
          ...numbers(
            r,
            s.isAnalog(d, r),
            (...x) => compareSpread(d.high, r, kin, ...x),
            (...x) => compareSpread(low, r, kin, ...x),
          ),
        },
      ];
    });
  });
}

function remembered(s: Setting, made: Make): Judged[] {
  const refs = [...new Set([...s.drivers.map((d) => d.ref), ...s.readers.map((r) => r.end.ref)])];
  const make = [
    made.text,
    ...s.drivers.map((d) => {
      const supply = s.scene.held.get(s.scene.netlist.netOf(`${d.ref}:${d.level.supply}`).id);
      return `d${refs.indexOf(d.ref)} ${supply ? made.spread(supply) : ""} ${d.level.output}${s.isAnalog(d, s.readers[0]!)}`;
    }),
    ...s.readers.map((r) => {
      const lines = [r.level.VIH, r.level.VIL, r.level.absMax].map((x) =>
        x === undefined ? "" : evaluate(x, { ...r.vars, V: r.V.min }) + "/" + evaluate(x, { ...r.vars, V: r.V.max }),
      );
      return `r${refs.indexOf(r.end.ref)} ${made.place(r.net.id)} ${r.end.as} ${made.spread(r.rail)} ${lines.join()} ${r.measured}${r.level.input}`;
    }),
  ].join("|");
  const known = memory.get(make);
  if (known) return known;
  const found = judgeIsland(s);
  if (memory.size >= MOST_KEPT) memory.clear();
  memory.set(make, found);
  return found;
}

function readersOf(
  scene: Scene,
  island: Island,
  nets: ReadonlyMap<string, Net>,
  measured: ReadonlySet<string>,
): Reader[] {
  const n = scene.netlist;
  return island.nets.flatMap((id) => {
    const net = nets.get(id);
    return (net?.ends ?? []).flatMap((end): Reader[] => {
      if (end.as !== "receiver" && end.as !== "both") return [];
      const level = n.level(end.ref, end.pin);
      if (!level || level.input === "none") return [];
      const supplyNet = n.netOf(`${end.ref}:${level.supply}`);
      const rail = scene.held.get(supplyNet.id);
      // A supply that is joined to ground says nothing about levels; the short speaks for itself.
      if (supplyNet.kind === "ground" || !supplyNet.V || !rail) return [];
      const { vars } = n.instance(end.ref)!;
      return [
        {
          end,
          net: net!,
          level,
          supplyNet,
          V: supplyNet.V,
          rail,
          vars,
          measured: measured.has(`${end.ref}.${end.pin}`),
        },
      ];
    });
  });
}

/**
 * Every driver against every receiver that its signal reaches, read from the solved circuit: the state in which the driver
 * is high and the one in which it is low (or lets go), each at the corner of all tolerances that leaves least against the
 * receiver's thresholds, which move with its own supply. Through resistors, contacts, diodes and channels; lines that nobody
 * drives at what pulls and contacts make of them. Rails of one nominal voltage from two sources are compared at nominal.
 * Nets without a fed supply or without any pull are left to the rules that say so.
 */
export function levelPairs(n: Netlist, solved: Solved): LevelVerdict[] {
  const { scene } = solved;
  const nets = new Map(n.nets.map((x) => [x.id, x]));
  const place = new Map(n.nets.map((x, i) => [x.id, i]));
  const measured = new Set(
    n.bindings
      .filter((b) => ANALOG_NEEDS.has(b.need.kind))
      .flatMap((b) => [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`]),
  );
  const out: LevelVerdict[] = [];
  for (const full of solved.islands) {
    if (!full.nets.length) continue;
    const readers = readersOf(scene, full, nets, measured);
    if (!readers.length) continue;
    // A light grid's own lights say nothing about the lines that scan it.
    const island = full.elements.some((e) => n.instance(e.ref)?.part.addresses) ? withoutGrids(n, full) : full;
    const made = island.elements.length ? (solved.makes.get(island) ?? makeOf(scene, castOf(scene, island))) : null;
    const s: Setting = {
      scene,
      island,
      rails: made?.cast.rails ?? [],
      drivers: full.nets.flatMap((id) => scene.drivers.get(id) ?? []),
      readers,
      isAnalog: (d, r) =>
        (d !== null && (d.level.output === "analog" || measured.has(d.key))) ||
        r.level.input === "analog" ||
        r.measured,
    };
    for (const { driver, by, reader, how, ...found } of made ? remembered(s, made) : judgeWire(s)) {
      const r = readers[reader]!;
      const receiver = { ref: r.end.ref, pin: r.end.pin, net: r.net.id, supplyNet: r.supplyNet.id, V: r.V };
      if (driver !== null) {
        const d = s.drivers[driver]!;
        const supplyNet = n.netOf(`${d.ref}:${d.level.supply}`);
        const from = { ref: d.ref, pin: d.pin, net: d.net, supplyNet: supplyNet.id, V: supplyNet.V!, how };
        const analog = free(r, s.isAnalog(d, r));
        out.push({ net: nets.get(d.net)!, driver: from, receiver, analog, ...found });
        continue;
      }
      const el = s.island.elements[by!.element]!;
      const rail = nets.get(s.rails[by!.rail]!)!;
      const pin = r.net.ends.find((e) => e.ref === el.ref)?.pin ?? rail.name;
      const from = { ref: el.ref, pin, net: r.net.id, supplyNet: rail.id, V: rail.V!, how };
      out.push({ net: r.net, driver: from, receiver, analog: free(r, s.isAnalog(null, r)), ...found });
    }
  }
  return out.sort((a, b) => place.get(a.net.id)! - place.get(b.net.id)!);
}
