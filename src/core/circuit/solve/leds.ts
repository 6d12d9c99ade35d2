import type { Triple } from "../../quantity";
import { evaluate } from "../../quantity";
import type { Net, NetElement, NetEnd, Netlist } from "../netlist/types";
import type { Way } from "./look";
import type { Flow, Solved } from "./solved";

/** Where a current path ends: a rail, ground, or a chip pin that drives it. */
export type PathEnd = { kind: "rail"; net: Net } | { kind: "pin"; net: Net; end: NetEnd } | { kind: "open"; net: Net };

/** A light with everything in its current path, and the current that results. Amperes and ohms. */
export interface LedPath {
  ref: string;
  element: NetElement;
  /** What it shares its current with, itself included, as a key: lights of one row have the same. */
  row: string;
  leds: string[];
  R: number;
  R_min: number;
  resistors: string[];
  high: PathEnd;
  low: PathEnd;
  Vf: Triple;
  max_A: number;
  /** Null while the path is not closed or not fed. */
  I: { typ: number; max: number } | null;
  /** Supply of the driving side, volts. */
  V: Triple | null;
}

const TWO_ENDED = new Set(["resistor", "led", "diode", "contact"]);

/** Nets by id; nets that only an element touches are made up, so that every way ends somewhere. */
function netsOf(n: Netlist): Map<string, Net> {
  const byId = new Map(n.nets.map((x) => [x.id, x]));
  for (const id of n.elements.flatMap((e) => [e.a, e.b]))
    if (!byId.has(id)) byId.set(id, { id, name: "", kind: "signal", ends: [], nodes: [], V: null });
  return byId;
}

function pathEnd(net: Net, from: NetElement, elements: NetElement[]): PathEnd | NetElement {
  if (net.kind === "supply" || net.kind === "ground") return { kind: "rail", net };
  const pin = net.ends.find((e) => e.as === "driver");
  if (pin) return { kind: "pin", net, end: pin };
  const next = elements.filter(
    (e) => e !== from && !e.internal && TWO_ENDED.has(e.kind) && (e.a === net.id || e.b === net.id),
  );
  return next.length === 1 ? next[0]! : { kind: "open", net };
}

/** The way of the wires from one side of a light, where no current tells it: the light is reversed, or the way is open. */
function walk(n: Netlist, byId: Map<string, Net>, led: NetElement, start: string) {
  const passed: NetElement[] = [];
  let here = start;
  let last = led;
  for (let step = 0; step < 20; step++) {
    const next = pathEnd(byId.get(here)!, last, n.elements);
    if (!("a" in next)) return { end: next, passed };
    passed.push(next);
    here = next.a === here ? next.b : next.a;
    last = next;
    if (!byId.has(here)) break;
  }
  return { end: { kind: "open", net: byId.get(here) ?? byId.get(start)! } as PathEnd, passed };
}

function pinVolts(n: Netlist, end: PathEnd): { V: Triple; Rout: number } | null {
  if (end.kind === "rail") return end.net.V && { V: end.net.V, Rout: 0 };
  if (end.kind === "open") return null;
  const level = n.level(end.end.ref, end.end.pin);
  const supply = level && n.netOf(`${end.end.ref}:${level.supply}`).V;
  const Rout = evaluate(level?.outTyp_ohm ?? 0, n.instance(end.end.ref)!.vars);
  return supply ? { V: supply, Rout } : null;
}

const sum = (f: (e: NetElement) => number, list: NetElement[]) => list.reduce((s, e) => s + f(e), 0);

function pathFrom(
  n: Netlist,
  led: NetElement,
  up: { end: PathEnd; passed: NetElement[] },
  down: { end: PathEnd; passed: NetElement[] },
  flow: Flow | undefined,
): LedPath {
  const parts = [led, ...up.passed, ...down.passed];
  const rs = parts.filter((p) => p.kind === "resistor");
  const drops = parts.filter((p) => p.Vf);
  const Vf = {
    min: sum((e) => e.Vf!.min, drops),
    typ: sum((e) => e.Vf!.typ, drops),
    max: sum((e) => e.Vf!.max, drops),
  };
  const R = sum((e) => e.ohm!, rs);
  const R_min = sum((e) => e.ohm! * (1 - e.tolerance!), rs);
  const [hi, lo] = [pinVolts(n, up.end), pinVolts(n, down.end)];
  // A pin that sinks the light pulls to its own ground.
  const sinkV = down.end.kind === "pin" ? { min: 0, typ: 0, max: 0 } : lo?.V;
  const closed = hi && lo && sinkV && up.end.net.id !== down.end.net.id;
  const Rpins = (hi?.Rout ?? 0) + (lo?.Rout ?? 0);
  const head = (v: number, s: number, f: number) => Math.max(0, v - s - f);
  // Where the solver has seen no current (a grid, a light the wrong way round), the path alone says what would flow.
  const alone = closed
    ? {
        typ: head(hi.V.typ, sinkV.typ, Vf.typ) / Math.max(R + Rpins, 0.5),
        max: head(hi.V.max, sinkV.min, Vf.min) / Math.max(R_min, 0.5),
      }
    : null;
  const I =
    flow && flow.A.typ > MEASURABLE_A
      ? { typ: flow.A.typ, max: flow.A.worst }
      : flow
        ? closed && { typ: 0, max: flow.A.worst }
        : alone;
  return {
    ref: led.ref,
    element: led,
    row: parts
      .filter((e) => e.Vf)
      .map((e) => `${e.ref} ${e.a} ${e.b}`)
      .sort()
      .join(),
    leds: drops.map((d) => d.ref),
    R,
    R_min,
    resistors: rs.map((r) => r.ref),
    high: up.end,
    low: down.end,
    Vf,
    max_A: Math.min(...drops.map((d) => d.max_A ?? Infinity)),
    I: I || null,
    V: closed || (flow && flow.A.typ > MEASURABLE_A) ? (hi?.V ?? null) : null,
  };
}

/** Below this a light is dark, amperes. */
const MEASURABLE_A = 1e-6;

/**
 * Every light with the current that the solved circuit puts through it, and the way that this current takes through
 * resistors, contacts, transistors and other lights. Grids, whose program lights one place at a time, by their wires alone.
 */
export function ledPaths(n: Netlist, solved: Solved): LedPath[] {
  const byId = netsOf(n);
  const endOf = (w: Way, at: string): PathEnd => {
    if (w.end.kind === "rail") return { kind: "rail", net: w.end.net };
    if (w.end.kind === "pin") return { kind: "pin", net: byId.get(w.end.driver.net)!, end: w.end.driver.end };
    return { kind: "open", net: byId.get(at)! };
  };
  return n.elements
    .filter((e) => e.kind === "led")
    .map((led): LedPath => {
      const flow = solved.flows.get(led);
      if (flow && flow.A.typ > MEASURABLE_A)
        return pathFrom(
          n,
          led,
          { end: endOf(flow.from, led.a), passed: flow.from.passed },
          { end: endOf(flow.to, led.b), passed: flow.to.passed },
          flow,
        );
      return pathFrom(n, led, walk(n, byId, led, led.a), walk(n, byId, led, led.b), flow);
    });
}
