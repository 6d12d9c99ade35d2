import type { NetElement } from "../../circuit/netlist";
import { closedAtRest, lookAt } from "./look";
import type { Change } from "./change";
import type { Laid, LaidElement } from "./laid";
import { Metal } from "./metal";
import { feedingOf, railsOf, type Feeding } from "./rails";
import type { Shown, State } from "./types";

export type { State } from "./types";

/** Below this between two terminals a meter on beep sounds, ohms. */
const BEEP_OHM = 30;
/** What a winding or a small lamp shows a meter is far below what it draws when it runs: it may well sound. */
const SOUNDS: ReadonlySet<NetElement["kind"]> = new Set(["load"]);

interface Base {
  /** Pieces of circuit between rails in the sound build, signal ways through parts included. */
  zones: Metal;
  /** Zones that are rails. */
  rails: ReadonlySet<number>;
  feeding: Feeding;
  /** Joined inside parts, wires apart. */
  inside: Metal;
  memo: Map<string, Shown>;
}
const bases = new WeakMap<Laid, Base>();

function baseOf(laid: Laid): Base {
  const known = bases.get(laid);
  if (known) return known;
  const inside = new Metal(laid.terminals.length);
  for (const [a, b] of laid.joins) inside.join(a, b);
  const feeding = feedingOf(laid);
  const zones = new Metal(0, inside);
  for (const w of laid.wires) for (const [a, b] of w.pairs) zones.join(a, b);
  const none = { dead: new Set<string>(), ohm: new Map<string, number>(), stuck: new Map<string, boolean>() };
  const { held } = railsOf(laid, feeding, { metal: new Metal(0, zones), ...none });
  const fixed = new Metal(0, zones);
  const isRail = (t: number) => held.has(fixed.root(t)) || laid.supplyNodes.has(t) || laid.groundNodes.has(t);
  const join = (a: number, b: number) => {
    if (!isRail(a) && !isRail(b)) zones.join(a, b);
  };
  for (const e of laid.elements) {
    join(e.a, e.b);
    if (e.control !== undefined) {
      join(e.a, e.control);
      join(e.b, e.control);
    }
  }
  for (const p of laid.passages) join(p.a, p.b);
  const rails = new Set<number>();
  laid.terminals.forEach((_, t) => isRail(t) && rails.add(zones.root(t)));
  const made = { zones, rails, feeding, inside, memo: new Map<string, Shown>() };
  bases.set(laid, made);
  return made;
}

/** Zones that a change touches; null: it may be felt anywhere. */
function touched(laid: Laid, base: Base, change: Change): ReadonlySet<number> | null {
  if (change.dead?.length || change.sag || change.upload) return null;
  const out = new Set<number>();
  const add = (t: number | undefined) => t !== undefined && out.add(base.zones.root(t));
  for (const i of change.cut ?? []) for (const pair of laid.wires[i]!.pairs) pair.forEach(add);
  for (const pair of change.join ?? []) pair.forEach((t) => add(laid.place.get(t)));
  const refs = new Set([...(change.ohm ?? []), ...(change.stuck ?? [])].map((x) => x.ref));
  if (refs.size)
    for (const e of laid.elements)
      if (refs.has(e.of.ref)) [e.a, e.b].filter((t) => !base.rails.has(base.zones.root(t))).forEach(add);
  // Something between two rails only: it may feed.
  if (refs.size && !out.size) return null;
  return [...out].some((z) => base.rails.has(z)) ? null : out;
}

/** The build with a change. */
export function stateOf(laid: Laid, change: Change): State {
  const base = baseOf(laid);
  const metal = new Metal(0, base.inside);
  const cut = new Set(change.cut ?? []);
  for (const w of laid.wires) if (!cut.has(w.i)) for (const [a, b] of w.pairs) metal.join(a, b);
  for (const [a, b] of change.join ?? []) {
    const [x, y] = [laid.place.get(a), laid.place.get(b)];
    if (x !== undefined && y !== undefined) metal.join(x, y);
  }
  const ohm = new Map((change.ohm ?? []).map((x) => [x.ref, x.ohm]));
  const stuck = new Map((change.stuck ?? []).map((x) => [x.ref, x.closed]));
  const dead = new Set(change.dead ?? []);
  const { held, tripped } = railsOf(laid, base.feeding, { metal, dead, ohm, stuck, sag: change.sag });
  const ohmOf = (e: LaidElement) => (e.of.kind === "resistor" ? (ohm.get(e.of.ref) ?? e.of.ohm) : undefined);
  let low: Metal | undefined;
  const lowOf = () => {
    if (low) return low;
    low = new Metal(0, metal);
    for (const e of laid.elements) {
      if (e.of.module || e.of.internal) continue;
      const o = ohmOf(e);
      const closed = e.of.kind === "contact" && (stuck.get(e.of.ref) ?? closedAtRest(e.of));
      if ((o !== undefined && o < BEEP_OHM) || closed || SOUNDS.has(e.of.kind)) low.join(e.a, e.b);
    }
    return low;
  };
  let ends: Map<number, LaidElement[]> | undefined;
  const at = (root: number): readonly LaidElement[] => {
    if (!ends) {
      ends = new Map();
      for (const e of laid.elements) {
        if (e.of.kind === "capacitor" || dead.has(e.of.ref)) continue;
        const roots = new Set([e.a, e.b, ...(e.control === undefined ? [] : [e.control])].map((t) => metal.root(t)));
        if (roots.size < 2) continue;
        for (const r of roots) {
          const list = ends.get(r);
          if (list) list.push(e);
          else ends.set(r, [e]);
        }
      }
    }
    return ends.get(root) ?? [];
  };
  const zones = touched(laid, base, change);
  const state: State = {
    felt: (t) => !zones || zones.has(base.zones.root(t)),
    laid,
    change,
    root: (t) => metal.root(t),
    beeps: (a, b) => lowOf().root(a) === lowOf().root(b),
    held,
    tripped,
    dead,
    at,
    ohmOf,
    volts(a, b) {
      const [x, y] = [pointOf(a), pointOf(b)];
      return x && y && x.domain === y.domain ? x.V - y.V : null;
    },
    look: (t, how) => lookAt(state, metal.root(t), how, stuck, base.memo),
  };
  const known = new Map<number, { V: number; domain: number } | null>();
  const pointOf = (t: number) => {
    const r = metal.root(t);
    const h = held.get(r);
    if (h) return { V: h.V.typ, domain: h.domain };
    if (known.has(r)) return known.get(r)!;
    const s = state.look(t, {});
    const V = s?.volts(r);
    const p = s && V !== undefined && s.domain !== null ? { V, domain: s.domain } : null;
    known.set(r, p);
    return p;
  };
  return state;
}
