import type { Circuit } from "../../circuit";
import type { Instance } from "../../circuit/netlist";
import type { Point } from "../runsheet/types";
import { heavyWires, nameOf, ownWays } from "../runsheet/sharing";
import { boardProblem, type BoardProblem, type Item } from "../breadboard/problem";
import { joinEnd } from "../../project";
import { benchName } from "../names";
import { headerOf, type Header } from "./headers";
import { leadShapes, shapesOf, type Shape } from "./shapes";

/** Something that is put down on the board: a part, or the holes for the wires of a part that is not on it. */
export interface PlugItem {
  ref: string;
  /** The end that stands in a hole of one of its shapes, `REF.PIN`. */
  endOf(pin: string): string;
  shapes: Shape[];
  leads: boolean;
  near?: Item["near"];
}
/** Ends that wires on the board join. Several groups of a net meet at a place beside the board. */
export interface Group {
  net: string;
  name: string;
  ends: string[];
  /** A wire stronger than the others: its gauge and why. */
  heavy?: { awg: number; says: string };
}
export interface PlugProblem {
  host: Instance;
  header: Header;
  items: PlugItem[];
  groups: Group[];
  /** What is not on the board, and why. */
  beside: { ref: string; why: string }[];
  /** Wires that never come to the board: from one thing beside it to another. */
  direct: { net: string; from: string; to: string; awg: number }[];
}

/** What a signal or a light supply wire is made of. */
export const LIGHT_AWG = 26;

const refOf = (end: string) => end.slice(0, end.indexOf("."));

const HELPERS = ["decoupling", "bulkCapacitor"];

/** The pin of its own part that a capacitor's leg is wired to. */
function atItsPart(c: Circuit, leg: Point, wires: Circuit["netlist"]["wires"]): string | undefined {
  const helper = c.netlist.instance(leg.ref)?.inserted;
  if (!helper || !HELPERS.includes(helper.key)) return undefined;
  const ends = wires.flatMap((w) =>
    joinEnd(w.from) === joinEnd(leg) ? [w.to] : joinEnd(w.to) === joinEnd(leg) ? [w.from] : [],
  );
  const pin = ends.find((e) => e.ref === helper.by);
  return pin && joinEnd(pin);
}

/** Parts that are in the front of a box are not on the board. */
const inFront = (c: Circuit, i: Instance) => !!c.project.box && !!i.part.body.panel && !i.inserted;

/** Boards and bare chips whose headers have places, those with most wires first. */
export function plugHosts(c: Circuit, p: BoardProblem = boardProblem(c)): Instance[] {
  const wires = (i: Instance) =>
    p.nets.reduce((s, n) => s + [...n.on, ...n.off].filter((e) => refOf(e) === i.ref).length, 0);
  return [...c.netlist.expanded.instances.values()]
    .filter((i) => i.part.board && headerOf(i, new Set()) !== null)
    .sort(
      (a, b) => Number(a.part.id.startsWith("chip/")) - Number(b.part.id.startsWith("chip/")) || wires(b) - wires(a),
    );
}

/** What a board for the header of this host carries, and which of its ends must be joined. */
export function plugProblem(c: Circuit, host: Instance): PlugProblem | null {
  const p = boardProblem(c);
  const used = new Set(
    p.nets
      .flatMap((n) => [...n.on, ...n.off])
      .flatMap((e) => (refOf(e) === host.ref ? e.slice(host.ref.length + 1) : [])),
  );
  const header = headerOf(host, used);
  if (!header) return null;
  const onHeader = new Set(header.pins.flatMap((x) => (x.pin ? [`${host.ref}.${x.pin}`] : [])));

  const items: PlugItem[] = [];
  const beside: PlugProblem["beside"] = [];
  for (const i of p.items) {
    if (i.ref === host.ref) continue;
    if (inFront(c, i.inst)) beside.push({ ref: i.ref, why: "it is in the front of the box: it hangs on leads" });
    else
      items.push({
        ref: i.ref,
        endOf: (pin) => `${i.ref}.${pin}`,
        shapes: shapesOf(i),
        leads: false,
        ...(i.near && { near: i.near }),
      });
  }
  beside.push(
    ...p.beside
      .filter((b) => b.ref !== host.ref)
      .map((b) => ({ ref: b.ref, why: b.why.replace("breadboard", "board") })),
  );
  const seated = new Set(items.flatMap((i) => i.shapes[0]!.holes.flatMap((h) => (h.pin ? [i.endOf(h.pin)] : []))));
  const here = (e: string) => onHeader.has(e) || seated.has(e);

  const groups: Group[] = [];
  const direct: PlugProblem["direct"] = [];
  const leads = new Map<string, Set<string>>();
  const lead = (end: string) => {
    const list = leads.get(refOf(end)) ?? new Set();
    leads.set(refOf(end), list.add(end));
    return end;
  };
  /** Each wire to a place beside the board has a hole of its own. */
  const hubs = new Map<string, string[]>();
  const hubLead = (name: string) => {
    const list = hubs.get(name) ?? [];
    const pad = `${name}.${list.length + 1}`;
    hubs.set(name, [...list, pad]);
    return pad;
  };
  const heavy = heavyWires(c);
  for (const net of c.netlist.nets) {
    const wires = c.netlist.wires.filter((w) => !w.cable && c.netlist.netOf(joinEnd(w.from)) === net);
    if (!wires.length) continue;
    const { stretches, light } = ownWays(c, net, wires, heavy);
    for (const { a, b, heavy: strong } of stretches) {
      const [from, to] = [nameOf(a), nameOf(b)];
      const on = [a, b].map((x) => typeof x !== "string" && here(nameOf(x)));
      if (!on[0] && !on[1]) {
        direct.push({ net: net.name, from, to, awg: strong?.awg ?? LIGHT_AWG });
        continue;
      }
      // A capacitor helps only at its part: not by way of a place that all wires go to.
      const helped = typeof a === "string" ? undefined : atItsPart(c, a, wires);
      if (helped && on[0] && typeof b === "string" && here(helped)) {
        groups.push({ net: net.id, name: net.name, ends: [from, helped] });
        continue;
      }
      const end = (x: typeof a, isHere: boolean) =>
        isHere ? nameOf(x) : typeof x === "string" ? hubLead(x) : lead(nameOf(x));
      groups.push({
        net: net.id,
        name: net.name,
        ends: [end(a, on[0]!), end(b, on[1]!)],
        ...(strong && { heavy: { awg: strong.awg, says: strong.says } }),
      });
    }
    const all = light.map(joinEnd);
    if (all.length < 2) continue;
    if (all.length === 2 && !all.some(here)) {
      direct.push({ net: net.name, from: all[0]!, to: all[1]!, awg: LIGHT_AWG });
      continue;
    }
    for (const e of all) if (!here(e)) lead(e);
    groups.push({ net: net.id, name: net.name, ends: all });
  }
  const order = (ends: string[]): string[] => {
    const pins = c.netlist.instance(refOf(ends[0]!))?.part.pins.map((x) => x.label) ?? [];
    return [...ends].sort(
      (a, b) => pins.indexOf(a.slice(a.indexOf(".") + 1)) - pins.indexOf(b.slice(b.indexOf(".") + 1)),
    );
  };
  for (const [ref, ends] of leads)
    items.push({
      ref,
      endOf: (pin) => `${ref}.${pin}`,
      shapes: leadShapes(order([...ends]).map((e) => e.slice(ref.length + 1))),
      leads: true,
    });
  for (const [name, pads] of hubs)
    items.push({
      ref: name,
      endOf: (pin) => `${name}.${pin}`,
      shapes: leadShapes(pads.map((x) => x.slice(name.length + 1))),
      leads: true,
    });
  return { host, header, items, groups, beside, direct };
}

/** Names for people: what a reference on the board is. */
export function itemName(c: Circuit, item: { ref: string; leads: boolean }): string {
  const inst = c.netlist.instance(item.ref);
  const name = inst ? benchName(inst) : item.ref;
  return item.leads ? `wires to ${name}` : name;
}
