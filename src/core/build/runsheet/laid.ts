import type { Circuit } from "../../circuit";
import type { Net } from "../../circuit/netlist";
import { joinEnd, splitEnd } from "../../project";
import { layoutInProject, type BoardEnd, type Layout } from "../breadboard";
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
  return c.netlist.nets.flatMap((net): LaidNet[] => {
    const wires = c.netlist.wires.filter((w) => !w.cable && c.netlist.netOf(joinEnd(w.from)) === net);
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
  const layout = layoutInProject(c);
  const laid = { nets: lay(c, layout), layout };
  memo.set(c, laid);
  return laid;
}

/** The same by the house rule alone, whatever stands on a breadboard: what joins what, for the drawing. */
export const laidByRule = (c: Circuit): LaidNet[] => lay(c, null);
