import type { Net, NetElement } from "../netlist/types";
import type { Island } from "./islands";
import { modelOf, type Driver, type Model, type Scene, type State } from "./model";
import { nodesOf, type Element } from "./network";
import { prepare, solveAt, type Point, type Prepared } from "./point";

/** One step of the way that a current takes. */
export interface Way {
  /** Elements on the way, nearest first. */
  passed: NetElement[];
  end: { kind: "rail"; net: Net } | { kind: "pin"; driver: Driver } | { kind: "open" };
}

/** What was learnt of an island in one state. */
export interface Look {
  state: State;
  model: Model;
  p: Prepared;
  point: Point;
}

export const look = (scene: Scene, island: Island, state: State, small?: ReadonlyMap<NetElement, number>): Look => {
  const model = modelOf(scene, island, state, small);
  const p = prepare(model.network);
  return { state, model, p, point: solveAt(p, new Map()) };
};

/** Current into an element at a node of its, amperes. */
function into(l: Look, e: Element, node: string): number {
  if (e.kind === "bjt") {
    const [c, b] = [l.point.amps(e), l.point.base(e)];
    return (node === e.c ? c : 0) + (node === e.b ? b : 0) - (node === e.e ? c + b : 0);
  }
  const I = l.point.amps(e);
  const [first, last] = e.kind === "fet" ? [e.d, e.s] : [e.a, e.b];
  return (node === first ? I : 0) - (node === last ? I : 0);
}

/** An element that joins a node to another of the same voltage while nothing flows: how a voltage comes to an open pin. */
function conductor(l: Look, here: string, last: NetElement | Driver | null): { e: Element; I: number } | null {
  const v = l.point.volts(here);
  for (const e of l.model.network.elements) {
    if (l.model.of.get(e) === last || e.kind === "bjt" || !nodesOf(e).includes(here)) continue;
    const other = nodesOf(e).find((x) => x !== here);
    const seen = other === undefined ? NaN : l.point.volts(other);
    const drop = e.kind === "diode" ? e.Vf.max + 0.01 : 0.01;
    if (seen - v > -1e-3 && seen - v < drop) return { e, I: 0 };
  }
  return null;
}

/** Follows the strongest current from a node, against its direction (`up`) or with it, to a rail or a pin. */
export function follow(scene: Scene, l: Look, start: string, without: NetElement | null, up: boolean): Way {
  const passed: NetElement[] = [];
  let here = start;
  let last: NetElement | Driver | null = without;
  for (let step = 0; step < 24; step++) {
    const rail = scene.heldNets.get(here);
    if (rail) return { passed, end: { kind: "rail", net: rail } };
    let best: { e: Element; I: number } | null = null;
    for (const e of l.model.network.elements) {
      const what = l.model.of.get(e)!;
      if (what === last || !nodesOf(e).includes(here)) continue;
      const I = up ? -into(l, e, here) : into(l, e, here);
      if (I > (best?.I ?? 1e-9)) best = { e, I };
    }
    // Where nothing flows, a voltage still comes through what would conduct.
    if (!best && up) best = conductor(l, here, last);
    if (!best) return { passed, end: { kind: "open" } };
    const what = l.model.of.get(best.e)!;
    if ("key" in what) return { passed, end: { kind: "pin", driver: what } };
    passed.push(what);
    last = what;
    const others = nodesOf(best.e).filter((n) => n !== here);
    const next = others.sort((a, b) => {
      const [x, y] = [into(l, best.e, a), into(l, best.e, b)];
      return up ? y - x : x - y;
    })[0];
    if (next === undefined) break;
    here = next;
  }
  return { passed, end: { kind: "open" } };
}
