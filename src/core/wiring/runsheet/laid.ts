import type { Circuit } from "../../circuit";
import type { Net } from "../../netlist";
import { joinEnd } from "../../project";
import { heavyWires, layNet, type Stretch } from "./sharing";

export interface LaidNet {
  net: Net;
  stretches: Stretch[];
}

const memo = new WeakMap<Circuit, LaidNet[]>();

/** Every net with its wires as they are laid, cables left out. Remembered for the circuit: run sheet and drawing share it. */
export function laidNets(c: Circuit): LaidNet[] {
  const known = memo.get(c);
  if (known) return known;
  const heavy = heavyWires(c);
  const out = c.netlist.nets.flatMap((net): LaidNet[] => {
    const wires = c.netlist.wires.filter((w) => !w.cable && c.netlist.netOf(joinEnd(w.from)) === net);
    const stretches = layNet(c, net, wires, heavy);
    return stretches.length ? [{ net, stretches }] : [];
  });
  memo.set(c, out);
  return out;
}
