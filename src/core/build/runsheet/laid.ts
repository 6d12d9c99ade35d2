import type { Circuit } from "../../circuit";
import type { Net, Wire } from "../../circuit/netlist";
import { joinEnd, splitEnd } from "../../project";
import { layoutInProject, type BoardEnd, type Layout } from "../breadboard";
import { proveBuild } from "./prove";
import { crowdHub, heavyStretches, heavyWires, layNet, merged, type Hub, type Point, type Stretch } from "./sharing";

export interface LaidNet {
  net: Net;
  stretches: Stretch[];
}
export interface Laid {
  nets: LaidNet[];
  /** The placement on breadboards that the wires follow; null without one. */
  layout: Layout | null;
}

const memo = new WeakMap<Circuit, Laid>();
const point = (e: BoardEnd): Point | Hub => (e.isPin ? splitEnd(e.at) : e.at);

/** From hole to hole, as the placement says. */
function onBoard(layout: Layout, net: Net): Stretch[] {
  const wires = layout.wires.filter((w) => w.net === net.id);
  const joined = layout.joined.filter((j) => j.net === net.id);
  return [
    ...wires.map((w): Stretch => ({
      a: point(w.a),
      b: point(w.b),
      holes: [w.a.hole, w.b.hole],
      apart_mm: w.apart_mm,
      ...(w.heavy && { heavy: w.heavy }),
      ...(w.kind === "bridge" && { because: "joins the two pieces of this rail" }),
    })),
    ...joined.map((j): Stretch => ({
      a: point(j.a),
      b: point(j.b),
      holes: [j.a.hole, j.b.hole],
      apart_mm: 0,
      joined: true,
    })),
  ];
}

function lay(c: Circuit, layout: Layout | null): LaidNet[] {
  const heavy = heavyWires(c);
  const byNet = new Map<Net, Wire[]>(c.netlist.nets.map((n) => [n, []]));
  for (const w of c.netlist.wires) if (!w.cable) byNet.get(c.netlist.netOf(joinEnd(w.from)))?.push(w);
  return c.netlist.nets.flatMap((net): LaidNet[] => {
    const wires = byNet.get(net)!;
    const stretches = layout
      ? merged(net, [...heavyStretches(c, net, wires, heavy), ...onBoard(layout, net)], crowdHub(c, net))
      : layNet(c, net, wires, heavy);
    return stretches.length ? [{ net, stretches }] : [];
  });
}

/**
 * Every net with its wires as they are laid, cables left out: from hole to hole where parts have places on breadboards,
 * else by the house rule. Remembered for the circuit.
 */
export function laidNets(c: Circuit): Laid {
  const known = memo.get(c);
  if (known) return known;
  const laid = proven(c, layoutInProject(c));
  memo.set(c, laid);
  return laid;
}

/** A placement with its wires laid, and with whatever they leave open or join that they should not. */
function proven(c: Circuit, layout: Layout | null): Laid {
  const nets = lay(c, layout);
  if (!layout) return { nets, layout };
  const told = new Set(layout.trouble.filter((t) => t.kind === "joins").flatMap((t) => t.at));
  const found = proveBuild(c, nets, layout).filter((t) => t.kind !== "joins" || !t.at.some((e) => told.has(e)));
  return { nets, layout: { ...layout, trouble: [...layout.trouble, ...found] } };
}

/** The placement that the project carries, proven; null without one. */
export const layoutProven = (c: Circuit): Layout | null => laidNets(c).layout;

/** A placement that the project does not carry yet, proven like one that it does. */
export const provenLayout = (c: Circuit, layout: Layout): Layout => proven(c, layout).layout!;

/** The same by the house rule alone, whatever stands on a breadboard: what joins what, for the drawing. */
export const laidByRule = (c: Circuit): LaidNet[] => lay(c, null);
