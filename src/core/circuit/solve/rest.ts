import type { NetElement } from "../netlist/types";
import type { Island } from "./islands";
import { follow, look, type Way } from "./look";
import type { State } from "./model";
import { LOOSE_OHM } from "./point";
import type { Solved } from "./solved";

/** What a net stands at while no pin drives it. */
export interface Rest {
  V: number;
  /** Which side that is, against the highest supply that the piece of circuit hangs on. */
  side: "high" | "low" | "between";
  /** What the net looks back into, ohms. */
  ohm: number;
  /** How the voltage comes. */
  way: Way;
}

/** Shares of the supply below and above which a resting line is taken for low and high. */
const LOW_SHARE = 0.3;
const HIGH_SHARE = 0.7;

export interface Asked {
  /** Pulls inside a chip count; they start with the program. */
  internal?: boolean;
  /** A pull that the chip itself has at this pin while it starts. */
  pull?: NetElement;
}

const atRest = (e: NetElement) => e.kind === "contact" && e.def?.kind === "contact" && e.def.closed === "rest";

function work(solved: Solved, net: string, asked: Asked): Rest | null {
  const rail = solved.scene.heldNets.get(net);
  if (rail) {
    const side = rail.kind === "supply" ? "high" : "low";
    return { V: solved.scene.held.get(net)!.typ, side, ohm: 0, way: { passed: [], end: { kind: "rail", net: rail } } };
  }
  const home = solved.islandOf(net);
  if (!home) return null;
  const own = home.elements.filter((e) => asked.internal || !e.internal);
  const island: Island = { ...home, elements: asked.pull ? [...own, asked.pull] : own };
  if (!island.elements.length) return null;
  const state: State = { closed: new Set(island.elements.filter(atRest)), drive: new Map(), wiper: 0.5 };
  const l = look(solved.scene, island, state);
  if (!l.p.index.has(net) || l.p.floating.has(net)) return null;
  const ohm = l.point.impedance(net);
  if (ohm > LOOSE_OHM) return null;
  const V = l.point.volts(net);
  const rails = island.elements.flatMap((e) => [e.a, e.b].map((id) => solved.scene.held.get(id)?.typ ?? 0));
  const share = V / Math.max(...rails, 1e-9);
  const side = V < 1e-3 || share <= LOW_SHARE ? "low" : share >= HIGH_SHARE ? "high" : "between";
  return { V, side, ohm, way: follow(solved.scene, l, net, null, true) };
}

const memo = new WeakMap<Solved, Map<string, Rest | null>>();

/**
 * A net from power-on until a program sets anything: every pin lets go, contacts as they rest, wipers in the middle. Null where
 * nothing but leaks holds it. Lights that would need current to conduct hold nothing.
 */
export function restOf(solved: Solved, net: string, asked: Asked = {}): Rest | null {
  if (asked.pull) return work(solved, net, asked);
  const key = `${net} ${asked.internal ? "with" : "without"}`;
  const mine = memo.get(solved) ?? new Map<string, Rest | null>();
  memo.set(solved, mine);
  const known = mine.get(key);
  if (known !== undefined) return known;
  const made = work(solved, net, asked);
  mine.set(key, made);
  return made;
}
