import type { Triple } from "../../quantity";
import type { NetElement } from "../netlist/types";
import type { Island } from "./islands";
import { look, type Look } from "./look";
import type { Driver, State } from "./model";
import { nodesOf, type Element } from "./network";
import { reachOf } from "./reach";
import type { Solved } from "./solved";
import { worst, type Quantity } from "./worst";

/** How a transistor is worked: by which pin, and what its base or gate gets while it is on. */
export interface Drive {
  driver: Driver;
  /** The pin is high while the transistor is on. */
  high: boolean;
  /** Gate or base against source or emitter while on, volts, positive the way that switches it on. */
  on_V: Triple;
  /** Base current while on, amperes; 0 for a MOSFET. */
  base_A: Triple;
  /** Volts that a node keeps over another while the transistor is on. */
  on(node: string, minus: string): Triple;
}

const isOnHigh = (el: NetElement) =>
  el.def?.kind === "bjt" ? el.def.type === "npn" : el.def?.kind === "fet" && el.def.type === "n";

/** The pin that reaches a base or gate through resistors. */
function straight(solved: Solved, island: Island, el: NetElement): Driver | undefined {
  for (const [net, way] of reachOf(island, el.control!)) {
    const d = way.through ? undefined : solved.scene.drivers.get(net)?.[0];
    if (d) return d;
  }
  return undefined;
}

const channel = (l: Look, el: NetElement): Element | undefined =>
  l.model.network.elements.find((e) => l.model.of.get(e) === el && (e.kind === "bjt" || e.kind === "fet"));
const amps = (l: Look, el: NetElement) => {
  const e = channel(l, el);
  return e ? Math.abs(l.point.amps(e)) : 0;
};

const flipped = (s: State, d: Driver): State => ({
  ...s,
  drive: new Map(s.drive).set(d.key, s.drive.get(d.key) === "high" ? "low" : "high"),
});

/** The pin that decides about a transistor through others, as in a stage before it: the one whose other level takes most current away. */
function deciding(solved: Solved, island: Island, el: NetElement, on: State): Driver | undefined {
  const most = amps(look(solved.scene, island, on), el);
  let best: { d: Driver; left: number } | undefined;
  for (const d of island.nets.flatMap((id) => solved.scene.drivers.get(id) ?? [])) {
    if (!on.drive.has(d.key)) continue;
    const left = amps(look(solved.scene, island, flipped(on, d)), el);
    if (left < most / 2 && left < (best?.left ?? Infinity)) best = { d, left };
  }
  return best?.d;
}

const range = (l: Look, q: Quantity, typ: number): Triple => ({
  min: worst(l.p, q, "min").value,
  typ,
  max: worst(l.p, q, "max").value,
});

/** How the solved circuit works a transistor; null where no pin does. */
export function driveOf(solved: Solved, el: NetElement): Drive | null {
  const island = [el.a, el.b, el.control ?? ""].flatMap((id) => solved.islandOf(id) ?? [])[0];
  if (!island || !el.control) return null;
  const seen = solved.flows.get(el)?.A.state;
  const rest: State = seen ?? { closed: new Set(), drive: new Map(), wiper: 0.5 };
  const near = straight(solved, island, el);
  const driver = near ?? (seen && deciding(solved, island, el, seen));
  if (!driver) return null;
  const level = near ? (isOnHigh(el) ? "high" : "low") : rest.drive.get(driver.key)!;
  const state: State = { ...rest, drive: new Map(rest.drive).set(driver.key, level) };
  const l = look(solved.scene, island, state);
  const e = channel(l, el);
  // A source or emitter that leads nowhere stands anywhere: the rules of open ways speak for it.
  const goesOn = l.model.network.elements.some((x) => l.model.of.get(x) !== el && nodesOf(x).includes(el.b));
  const loose = !l.p.net.held.has(el.b) && !goesOn;
  if (!e || loose) return null;
  const [plus, minus] = isOnHigh(el) ? [el.control, el.b] : [el.b, el.control];
  const between = (a: string, b: string): Triple =>
    range(l, { of: "volts", node: a, minus: b }, l.point.volts(a) - l.point.volts(b));
  const base = (): Triple => {
    const r = range(l, { of: "base", element: e }, l.point.base(e));
    return isOnHigh(el) ? r : { min: -r.max, typ: -r.typ, max: -r.min };
  };
  return {
    driver,
    high: level === "high",
    on_V: between(plus, minus),
    base_A: e.kind === "bjt" ? base() : { min: 0, typ: 0, max: 0 },
    on: between,
  };
}
