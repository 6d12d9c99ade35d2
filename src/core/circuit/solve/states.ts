import type { NetElement, Netlist } from "../netlist/types";
import type { Island } from "./islands";
import type { Driver, Scene, State } from "./model";

/** Of so many contacts every combination is judged; of more only none, each alone and all. */
const ALL_CONTACTS = 4;
/** Of so many outputs every combination of high and low is judged; of more only extremes and each alone. */
const ALL_DRIVERS = 5;
const MOST = 400;

/** Contacts that one hand or coil moves: all of them together, those that rest closed the other way round. */
function actuators(n: Netlist, island: Island): { moved: NetElement[]; rest: NetElement[] }[] {
  const out = new Map<string, { moved: NetElement[]; rest: NetElement[] }>();
  const changes = new Set(
    island.elements.flatMap((e) => (e.def?.kind === "contact" && e.def.closed === "rest" ? [e.ref] : [])),
  );
  island.elements.forEach((e, i) => {
    if (e.kind !== "contact") return;
    // A change-over contact is one that shares its common pin with one that rests closed.
    const key = changes.has(e.ref) ? `${e.ref} ${e.a}` : `${e.ref} ${i}`;
    const a = out.get(key) ?? { moved: [], rest: [] };
    (e.def?.kind === "contact" && e.def.closed === "rest" ? a.rest : a.moved).push(e);
    out.set(key, a);
  });
  return [...out.values()];
}

/** Which contacts are closed together: every combination while they are few, else none, each alone and all. */
export function contactSets(n: Netlist, island: Island): Set<NetElement>[] {
  const list = actuators(n, island);
  const make = (on: (i: number) => boolean) => new Set(list.flatMap((a, i) => (on(i) ? a.moved : a.rest)));
  if (list.length <= ALL_CONTACTS)
    return Array.from({ length: 2 ** list.length }, (_, m) => make((i) => (m & (1 << i)) !== 0));
  return [make(() => false), ...list.map((_, k) => make((i) => i === k)), make(() => true)];
}

type Drive = Map<string, "high" | "low">;

function driveSets(drivers: Driver[]): Drive[] {
  // Two outputs on one wire fight whatever else stands: the rule of contention speaks, here the first one drives.
  const nets = new Set<string>();
  const sure = drivers.filter((d) => !d.turns && !nets.has(d.net) && nets.add(d.net));
  const turns = drivers.filter((d) => d.turns);
  const all = (of: (i: number) => "high" | "low"): Drive => new Map(sure.map((d, i) => [d.key, of(i)]));
  const out: Drive[] = [];
  if (sure.length <= ALL_DRIVERS)
    for (let m = 0; m < 2 ** sure.length; m++) out.push(all((i) => (m & (1 << i) ? "high" : "low")));
  else {
    out.push(
      all(() => "low"),
      all(() => "high"),
    );
    sure.forEach((_, k) => {
      out.push(all((i) => (i === k ? "high" : "low")));
      out.push(all((i) => (i === k ? "low" : "high")));
    });
  }
  // From power-on until the program runs, the board's own pins are open.
  if (sure.some((d) => d.host)) out.push(new Map(sure.filter((d) => !d.host).map((d) => [d.key, "low"] as const)));
  // Lines that both ends use in turn: one at a time.
  for (const d of turns)
    for (const level of d.open ? (["low"] as const) : (["high", "low"] as const)) out.push(new Map([[d.key, level]]));
  return out;
}

/** Every state of an island that can happen, as far as they are few; else the outermost ones. */
export function statesOf(scene: Scene, island: Island): State[] {
  const drivers = island.nets.flatMap((id) => scene.drivers.get(id) ?? []);
  const wipers = island.elements.some((e) => e.def?.kind === "resistor" && e.def.track) ? [0.5, 0, 1] : [0.5];
  const contacts = contactSets(scene.netlist, island);
  const drives = driveSets(drivers);
  const out: State[] = [];
  for (const closed of contacts)
    for (const drive of drives)
      for (const wiper of wipers) {
        if (out.length >= MOST) return out;
        out.push({ closed, drive, wiper });
      }
  return out;
}
