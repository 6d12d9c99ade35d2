import { evaluate } from "../../quantity";
import type { LaidElement, Laid } from "./laid";
import { ampsThrough, driversOf } from "./drivers";
import { stateOf } from "./state";
import type { How, State } from "./types";

/**
 * What is seen of a part when its program works it: it answers or does as it should, it does not, a light is dim or lit all
 * the time, nothing can be said, or its board is silent.
 */
export type Working = "works" | "no" | "dim" | "always" | "unsure" | "silent";

/** A part that a program works, with what it takes to know that it does. */
export interface Watched {
  ref: string;
  /** Its own reference and those of loose parts that stand in its wires. */
  refs: readonly string[];
  host: string;
  needs: Laid["needs"];
  /** Elements that shine or move. */
  loads: readonly LaidElement[];
  contacts: readonly LaidElement[];
  /** A loose part without a supply of its own is judged by volts and amperes instead of by an answer. */
  loose: boolean;
  /** Its lines are worked in turn, as those of a grid: judged by whether each reaches its pin. */
  scanned: boolean;
  /** Terminals at which something has to be otherwise for the part to do otherwise. */
  around: readonly number[];
}

export interface Works {
  watched: readonly Watched[];
  hosts: readonly string[];
  sound: State;
  /** What is seen of a part, and of a board's console ("works" or "silent"). */
  of(s: State, ref: string): Working;
  console(s: State, host: string): Working;
  /** Whether powering this build can destroy something. */
  hurts(s: State): boolean;
}

/** A supply may lie this much below what its part asks for and still mostly work, share. */
const SLACK = 0.05;
/** A line that is held high stands above this share of what it stands at in a sound build. */
const HELD_SHARE = 0.6;
/** Currents within these shares of the sound build's look the same. */
const SAME = { least: 0.55, most: 1.8 };
/** A light shines with this much of its usual current, however dimly. */
const SHINES = 0.02;
/** Volts within this share of the board's supply are read alike. */
const NEAR = 0.12;

function watchedOf(laid: Laid): Watched[] {
  const out = new Map<string, Watched>();
  const { c } = laid;
  for (const n of laid.needs) {
    const inst = c.netlist.instance(n.ref);
    if (!inst || c.netlist.instance(n.host)?.part.board === undefined) {
      // A need that an expander or register serves: that part's own host is what runs the program.
      if (!inst) continue;
    }
    const ref = inst.inserted?.by ?? n.ref;
    const own = c.netlist.instance(ref);
    if (!own || own.part.board) continue;
    const known = out.get(ref);
    const refs = [...new Set([...(known?.refs ?? [ref]), n.ref])];
    const mine = laid.elements.filter((e) => refs.includes(e.of.ref));
    out.set(ref, {
      ref,
      refs,
      host: known?.host ?? own.host ?? n.host,
      needs: [...(known?.needs ?? []), n],
      loads: mine.filter((e) => (e.of.kind === "led" || e.of.kind === "load") && !e.of.module),
      contacts: mine.filter((e) => e.of.kind === "contact"),
      loose: Object.values(own.part.supplies).every((s) => s.source !== undefined),
      scanned: own.part.addresses !== undefined,
      around: [],
    });
  }
  const pinsOf = (refs: ReadonlySet<string>) => [...laid.pins].flatMap(([t, p]) => (refs.has(p.ref) ? [t] : []));
  /** The part's own references, and those of parts that it hangs on, up to the board. */
  const chain = (ref: string, seen: Set<string>): Set<string> => {
    const w = out.get(ref);
    if (!w || seen.has(ref)) return seen;
    for (const r of w.refs) seen.add(r);
    for (const n of w.needs) chain(n.host, seen);
    return seen;
  };
  return [...out.values()].map((w) => ({
    ...w,
    scanned: w.scanned || (w.contacts.length > 1 && w.needs.length > 1),
    around: [...new Set([...pinsOf(chain(w.ref, new Set())), ...w.needs.map((n) => n.hostPin)])],
  }));
}

/** Signal ways at a root: through resistors, diodes and gates that pass, and through buffers and chains. */
function neighbours(s: State, root: number, ways: ReadonlyMap<number, readonly [number, string][]>): number[] {
  const out: number[] = [];
  for (const e of s.at(root)) {
    if (e.of.kind !== "resistor" && e.of.kind !== "diode" && e.of.kind !== "fet") continue;
    const [a, b] = [s.root(e.a), s.root(e.b)];
    if (e.of.kind === "fet" && (e.control === undefined || !s.held.has(s.root(e.control)))) continue;
    if (a === root) out.push(b);
    else if (b === root) out.push(a);
  }
  for (const [to, ref] of ways.get(root) ?? []) if (!s.dead.has(ref)) out.push(to);
  return out;
}

const waysOf = (s: State): ReadonlyMap<number, readonly [number, string][]> => {
  const out = new Map<number, [number, string][]>();
  const put = (from: number, to: number, ref: string) => out.set(from, [...(out.get(from) ?? []), [to, ref]]);
  for (const p of s.laid.passages) {
    const [a, b] = [s.root(p.a), s.root(p.b)];
    put(a, b, p.ref);
    put(b, a, p.ref);
  }
  return out;
};

/** Pins that may drive or be driven by a program: two of different nets on one piece of metal disturb each other. */
const isActive = (laid: Laid, t: number) => {
  const def = laid.pins.get(t)?.def;
  return def !== undefined && def.role === "signal" && (def.io === "out" || def.io === "bidir" || !!def.offers?.length);
};

interface Signals {
  /** The pin of a board that a need's signal reaches first, or null. */
  reach(t: number): number | null;
  /** Whether a rail, or another signal, lies on the way. */
  disturbed(t: number): boolean;
}

const signals = new WeakMap<State, Signals>();

function signalsOf(s: State, sound: State | null): Signals {
  const known = signals.get(s);
  if (known) return known;
  const { laid } = s;
  const ways = waysOf(s);
  const hostPins = new Map<number, number[]>();
  const nets = new Map<number, Set<number>>();
  for (const [t, p] of laid.pins) {
    const r = s.root(t);
    if (p.def.offers?.length || (p.inst.part.board && p.def.role === "signal"))
      hostPins.set(r, [...(hostPins.get(r) ?? []), t]);
    if (sound && isActive(laid, t)) nets.set(r, (nets.get(r) ?? new Set()).add(sound.root(t)));
  }
  const made: Signals = {
    reach(t) {
      const own = laid.pins.get(t)?.ref;
      const seen = new Set([s.root(t)]);
      for (const r of seen) {
        if (s.held.has(r)) continue;
        const found = (hostPins.get(r) ?? []).filter((x) => laid.pins.get(x)!.ref !== own);
        if (found.length) {
          const planned = laid.needs.find((n) => n.pin === t)?.hostPin;
          return planned !== undefined && found.includes(planned) ? planned : found[0]!;
        }
        for (const next of neighbours(s, r, ways)) seen.add(next);
      }
      return null;
    },
    disturbed(t) {
      const r = s.root(t);
      if (s.held.has(r) && !(sound && sound.held.has(sound.root(t)))) return true;
      return (nets.get(r)?.size ?? 0) > 1;
    },
  };
  signals.set(s, made);
  return made;
}

const side = (V: number | undefined, of: number) =>
  V === undefined ? "open" : V > 0.7 * of ? "high" : V < 0.3 * of ? "low" : `${Math.round(V / of / NEAR)}`;

/** What every part of a plan shows in a build, against what it shows in a sound one. */
export function worksOf(laid: Laid): Works {
  const sound = stateOf(laid, {});
  const watched = watchedOf(laid);
  const by = new Map(watched.map((w) => [w.ref, w]));
  const hosts = laid.c.netlist.expanded.hosts;
  const suppliesOf = new Map<string, Laid["supplies"][number][]>();
  for (const x of laid.supplies) suppliesOf.set(x.ref, [...(suppliesOf.get(x.ref) ?? []), x]);
  const across = (s: State, x: Laid["supplies"][number]) => s.volts(x.node, x.ground);
  /** A supply that was fed well, and is so no longer. */
  const starved = (s: State, ref: string) =>
    (suppliesOf.get(ref) ?? []).some((x) => {
      const was = across(sound, x);
      if (!x.fed || was === null || was <= 0) return false;
      const V = across(s, x);
      return V === null || (V < Math.min(was, x.least) * (1 - SLACK) && V < was * 0.97) || V > x.most * 1.05;
    });
  const drivers = driversOf(laid);
  /**
   * What a loose part does at each of its lines: the currents through what shines or moves with the line high and low, or the
   * side on which the line stands with the contact open and closed, the wiper low, in the middle and high.
   */
  const traces = (s: State, w: Watched): (number | string)[] => w.needs.flatMap((n) => tracesAt(s, w, n));
  const tracesAt = (s: State, w: Watched, n: Laid["needs"][number]): (number | string)[] => {
    if (w.loads.length) {
      const driver = drivers.get(n.hostPin);
      return (["high", "low"] as const).flatMap((level) => {
        const how: How = driver ? { drive: [{ driver, at: n.hostPin, level }] } : {};
        return w.loads.map((e) => ampsThrough(s, e, how));
      });
    }
    const rail = laid.c.netlist.level(n.host, laid.pins.get(n.hostPin)!.def.label)?.supply;
    const node = rail === undefined ? undefined : laid.place.get(`${n.host}:${rail}`);
    const V = node === undefined ? 0 : (sound.held.get(sound.root(node))?.V.typ ?? 0);
    const at = (how: How) => {
      const r = s.root(n.hostPin);
      const h = s.held.get(r);
      return side(h ? h.V.typ : s.look(n.hostPin, how)?.volts(r), V || 5);
    };
    return w.contacts.length
      ? [at({}), at({ pressed: [...w.refs] })]
      : [at({ wiper: 0 }), at({ wiper: 0.5 }), at({ wiper: 1 })];
  };
  const soundTraces = new Map(watched.filter((w) => w.loose && !w.scanned).map((w) => [w.ref, traces(sound, w)]));
  const loose = (s: State, w: Watched): Working => {
    const [was, is] = [soundTraces.get(w.ref)!, traces(s, w)];
    if (!w.loads.length) return is.every((x, i) => x === was[i]) ? "works" : "no";
    const [a, b] = [was as number[], is as number[]];
    const most = Math.max(...a, 1e-9);
    const alike = (x: number, i: number) =>
      (x < most * SHINES && a[i]! < most * SHINES) || (x >= a[i]! * SAME.least && x <= a[i]! * SAME.most);
    if (b.every(alike)) return "works";
    // By line, and by its two levels: a light that shines at both never goes out.
    const lines = w.needs.map((_, k) =>
      [0, 1].map((level) => w.loads.map((_e, e) => b[(2 * k + level) * w.loads.length + e]!)),
    );
    const shines = (list: readonly number[] | undefined) => list!.some((x) => x >= most * SHINES);
    if (lines.some(([high, low]) => !shines(high) && !shines(low))) return "no";
    if (lines.some(([high, low]) => shines(high) && shines(low))) return "always";
    return b.some((x) => x > most * SAME.most) ? "always" : "dim";
  };
  const console = (s: State, host: string): Working => {
    if (s.dead.has(host) || (s.change.upload?.host === host && s.change.upload.silent)) return "silent";
    const key = laid.c.netlist.instance(host)?.part.board?.logicSupply;
    const own = (suppliesOf.get(host) ?? []).filter((x) => x.key === key);
    const off = own.some((x) => {
      const was = across(sound, x);
      const V = across(s, x);
      return was !== null && was > 0 && (V === null || V < was * 0.8);
    });
    return off ? "silent" : "works";
  };
  const told = new WeakMap<State, Map<string, Working>>();
  const of = (s: State, ref: string): Working => {
    const w = by.get(ref);
    if (!w) return "unsure";
    if (s !== sound && s.change.address?.ref !== ref && !w.around.some(s.felt)) return of(sound, ref);
    const known = told.get(s)?.get(ref);
    if (known) return known;
    const made = work(s, ref, w);
    told.set(s, (told.get(s) ?? new Map<string, Working>()).set(ref, made));
    return made;
  };
  const work = (s: State, ref: string, w: Watched): Working => {
    const board = hosts.includes(w.host) ? w.host : hosts[0];
    if (board !== undefined && console(s, board) === "silent") return "silent";
    if (w.refs.some((r) => s.dead.has(r))) return "no";
    if (s.change.address?.ref === ref) return "no";
    if (w.refs.some((r) => starved(s, r))) return "no";
    const [now, then] = [signalsOf(s, sound), signalsOf(sound, null)];
    // A part on whose lines it hangs must itself work.
    for (const n of w.needs)
      if (!hosts.includes(n.host) && by.has(n.host) && n.host !== ref && of(s, n.host) !== "works") return "no";
    if (w.loose && !w.scanned) return loose(s, w);
    for (const n of w.needs) {
      if (now.reach(n.pin) !== then.reach(n.pin)) return "no";
      if (now.disturbed(n.pin) || now.disturbed(n.hostPin)) return "no";
      const [a, b] = [sound.look(n.pin, {}), s.look(n.pin, {})];
      const was = a?.volts(sound.root(n.pin));
      const V = b?.volts(s.root(n.pin));
      if (was !== undefined && was > 1 && !w.contacts.length && (V === undefined || V < was * HELD_SHARE)) return "no";
    }
    const stuck = s.change.stuck?.some((x) => w.refs.includes(x.ref));
    return stuck ? "no" : "works";
  };
  /** The most that each signal pin stands, against its part's ground; its supply as it is in a sound build. */
  const stands = [...laid.pins].flatMap(([t, p]) => {
    const level = laid.c.netlist.level(p.ref, p.def.label);
    const node = level && laid.place.get(`${p.ref}:${level.supply}`);
    const V = node === undefined ? undefined : sound.held.get(sound.root(node))?.V.typ;
    return level && V !== undefined ? [{ t, most: evaluate(level.absMax, { ...p.inst.vars, V }) }] : [];
  });
  /** A rail lies on a pin that does not stand it: 5 V at a pin of a 3.3 V chip. */
  const beyond = (s: State) =>
    stands.some(({ t, most }) => {
      const held = s.held.get(s.root(t));
      return held !== undefined && held.V.typ > most && !sound.held.has(sound.root(t));
    });
  const hurts = (s: State): boolean =>
    s.tripped.length > 0 ||
    beyond(s) ||
    laid.supplies.some((x) => {
      const V = across(s, x);
      return V !== null && (V < -0.3 || V > x.most * 1.02) && !((across(sound, x) ?? 0) > x.most * 1.02);
    });
  return { watched, hosts, sound, of, console, hurts };
}
