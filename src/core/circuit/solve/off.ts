import { evaluate } from "../../quantity";
import { CLAMP_V, clampsToSupply } from "../netlist/clamps";
import type { Netlist } from "../netlist/types";
import { modelOf, type Driver, type Scene, type State } from "./model";
import { fixed, type Element } from "./network";
import type { LevelVerdict } from "./pairs";
import { prepare, solveAt } from "./point";
import { reachOf } from "./reach";
import type { Solved } from "./solved";
import { worst } from "./worst";

/** What a signal does to an input whose own supply is off: amperes into its clamp and volts at its pin. */
export interface IntoDead {
  A: { typ: number; worst: number };
  V: { typ: number; worst: number };
}

/** An output's resistance where its data says nothing, ohms. */
const OUTPUT_OHM = 25;
/** A clamp conducts like any junction: a little from this share of its drop on. */
const KNEE = 0.8;
const KNEE_OHM = 1200;

/** The scene with the rails of one source at nothing, and without the outputs that it feeds. */
function without(scene: Scene, source: string, rootOf: (net: string) => string | undefined): Scene {
  const held = new Map(scene.held);
  for (const id of scene.heldNets.keys())
    if (scene.heldNets.get(id)!.kind === "supply" && rootOf(id) === source) held.set(id, fixed(0));
  const alive = (d: Driver) => rootOf(scene.netlist.netOf(`${d.ref}:${d.level.supply}`).id) !== source;
  const drivers = new Map([...scene.drivers].map(([net, list]) => [net, list.filter(alive)] as const));
  return { ...scene, held, drivers };
}

/** An output as a source of current: its usual resistance, since its best case has none. */
const usual = (n: Netlist, d: Driver): Driver => ({
  ...d,
  high_ohm: fixed(
    d.level.outTyp_ohm === undefined ? OUTPUT_OHM : Math.max(1, evaluate(d.level.outTyp_ohm, n.instance(d.ref)!.vars)),
  ),
});

/**
 * A pair of driver and receiver while the receiver's source is off and all others are on: the receiver clamps to its dead
 * supply, as if it were the first input to give. `rootOf`: the source behind a supply net. Null where nothing arrives.
 */
export function whileOff(
  n: Netlist,
  solved: Solved,
  rootOf: (net: string) => string | undefined,
  v: LevelVerdict,
): IntoDead | null {
  const source = rootOf(v.receiver.supplyNet);
  const island = solved.islandOf(v.receiver.net);
  if (source === undefined || !island) return null;
  const scene = without(solved.scene, source, rootOf);
  const driver = v.driver.how === "push-pull" || v.driver.how === "diode" || v.driver.how === "contact";
  const d = driver
    ? (scene.drivers.get(v.driver.net) ?? []).find((x) => x.ref === v.driver.ref && x.pin === v.driver.pin)
    : undefined;
  if (driver && !d && v.driver.how === "push-pull") return null;
  const closed = d
    ? (reachOf(island, v.driver.net).get(v.receiver.net)?.contacts ?? [])
    : island.elements.filter((e) => v.driver.how === "contact" && e.kind === "contact" && e.ref === v.driver.ref);
  const state: State = { closed: new Set(closed), drive: new Map(d ? [[d.key, "high"]] : []), wiper: 0.5 };
  const drivers = new Map(scene.drivers);
  if (d) drivers.set(d.net, [usual(n, d)]);
  const model = modelOf({ ...scene, drivers }, island, state);
  const held = new Map(model.network.held);
  const level = n.level(v.receiver.ref, v.receiver.pin);
  held.set(v.receiver.supplyNet, fixed(0));
  const clamp: Element | null = clampsToSupply(level)
    ? {
        kind: "diode",
        id: "clamp",
        a: v.receiver.net,
        b: v.receiver.supplyNet,
        Vf: fixed(CLAMP_V),
        ohm: 0.001,
        knee: KNEE,
        knee_ohm: KNEE_OHM,
      }
    : null;
  const p = prepare({ elements: clamp ? [...model.network.elements, clamp] : model.network.elements, held });
  const node = v.receiver.net;
  if (!p.index.has(node) || p.floating.has(node)) return null;
  const point = solveAt(p, new Map());
  const amps = clamp
    ? { typ: point.amps(clamp), worst: worst(p, { of: "amps", element: clamp }, "max").value }
    : { typ: 0, worst: 0 };
  return { A: amps, V: { typ: point.volts(node), worst: worst(p, { of: "volts", node }, "max").value } };
}
