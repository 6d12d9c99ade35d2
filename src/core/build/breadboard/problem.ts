import type { Circuit } from "../../circuit";
import type { Instance, Net } from "../../circuit/netlist";
import { joinEnd } from "../../project";
import { crowdOf } from "../runsheet/crowds";
import { crowdHub, heavyWires, lightPoints } from "../runsheet/sharing";
import type { Heavy } from "../runsheet/types";
import { footprintOf, seatedPins, type Footprint } from "./footprints";
import type { Half, Pole } from "./sizes";

export interface Item {
  ref: string;
  inst: Instance;
  print: Exclude<Footprint, { kind: "off" }>;
  /** A capacitor that helps only close by: which of its legs belongs at which pin of which part. */
  near?: { leg: string; ref: string; pin: string };
}
/** A net that wires or rows of the breadboard must join. */
export interface BoardNet {
  id: string;
  name: string;
  kind: Net["kind"];
  /** Pins that are wired, `REF.PIN`: those on the breadboard and those that hang on leads. */
  on: string[];
  off: string[];
  /** The rails that carry it: pole and halves. */
  rail: { pole: Pole; halves: Half[] } | null;
  /** Too much for rails: its rows and leads meet at this place beside the board, fed by strong wires, by part. */
  strip: { name: string; feeds: ReadonlyMap<string, Heavy> } | null;
}
export interface BoardProblem {
  items: Item[];
  beside: { ref: string; why: string }[];
  nets: BoardNet[];
  /** The net of every pin of a part on the breadboard that is on one, wired or not. */
  netOf: Map<string, string>;
}

/** Which nets get rails: the ground with most ends both minus rails, a second one the right; supplies likewise. */
function railsFor(nets: BoardNet[]): void {
  for (const [kind, pole] of [
    ["ground", "-"],
    ["supply", "+"],
  ] as const) {
    const list = nets
      .filter((n) => !n.strip && n.kind === kind && n.on.length + n.off.length > 2)
      .sort((a, b) => b.on.length + b.off.length - a.on.length - a.off.length);
    const [first, second] = list;
    if (first) first.rail = { pole, halves: second ? ["left"] : ["left", "right"] };
    if (second) second.rail = { pole, halves: ["right"] };
  }
}

/** The pin that a part's own capacitor stands at; undefined for everything else. */
function nearOf(c: Circuit, inst: Instance): Item["near"] {
  const { inserted } = inst;
  if (inserted?.key !== "decoupling" && inserted?.key !== "bulkCapacitor") return undefined;
  const pin = c.netlist.instance(inserted.by)?.part.companions.find((x) => x.key === inserted.key)?.pin;
  const net = pin && c.netlist.netOf(`${inserted.by}.${pin}`);
  const leg = net && net.ends.find((e) => e.ref === inst.ref)?.pin;
  return pin && leg ? { leg, ref: inserted.by, pin } : undefined;
}

/** What is to be placed: parts with their footprints, and the nets that must be joined on the breadboard. */
export function boardProblem(c: Circuit): BoardProblem {
  const leads = new Map(c.project.parts.map((p) => [p.ref, p.wire_cm]));
  const items: Item[] = [];
  const beside: BoardProblem["beside"] = [];
  for (const inst of c.netlist.expanded.instances.values()) {
    const print = footprintOf(inst, leads.get(inst.ref));
    if (print.kind === "off") beside.push({ ref: inst.ref, why: print.why });
    else {
      const near = nearOf(c, inst);
      items.push({ ref: inst.ref, inst, print, ...(near && { near }) });
    }
  }
  const placed = new Set(items.map((i) => i.ref));
  const standing = new Set(items.flatMap((i) => seatedPins(i.print).map((pin) => `${i.ref}.${pin}`)));
  const heavy = heavyWires(c);
  const nets = c.netlist.nets.flatMap((net): BoardNet[] => {
    const wires = c.netlist.wires.filter((w) => !w.cable && c.netlist.netOf(joinEnd(w.from)) === net);
    const points = lightPoints(c, net, wires, heavy);
    if (points.length < 2) return [];
    const crowd = crowdOf(c, net, heavy);
    // A pin that does not stand in a row, such as one of a header at the far end, hangs on a lead of its own.
    const is = (p: { ref: string; pin: string }) => standing.has(joinEnd(p));
    return [
      {
        id: net.id,
        name: net.name,
        kind: net.kind,
        on: points.filter(is).map(joinEnd),
        off: points.filter((p) => !is(p)).map(joinEnd),
        rail: null,
        strip: crowd.size ? { name: crowdHub(c, net), feeds: crowd } : null,
      },
    ];
  });
  railsFor(nets);
  const netOf = new Map(
    c.netlist.nets.flatMap((n) =>
      n.ends.filter((e) => placed.has(e.ref)).map((e) => [`${e.ref}.${e.pin}`, n.id] as const),
    ),
  );
  return { items, beside, nets, netOf };
}
