import { splitEnd } from "../../../project";
import type { FaultKind, Weighted } from "../types";
import { told } from "../around";

export const wrongSupply: FaultKind = {
  id: "wrong-supply",
  name: "a part at the wrong supply",
  often: 0.5,
  because: "3.3 V and 5 V lie side by side on most boards",
  minutes: 1,
  find(laid) {
    const { netlist } = laid.c;
    return laid.wires.flatMap((w): Weighted[] => {
      const net = w.cable ? undefined : netlist.netOf(w.a);
      if (!net || net.kind !== "supply" || !net.V) return [];
      const end = [w.a, w.b].find((e) => netlist.instance(splitEnd(e).ref)?.part.board);
      const ref = end && splitEnd(end).ref;
      const board = ref ? netlist.instance(ref)?.part : undefined;
      if (!end || !board) return [];
      const others = board.pins.filter((p) => {
        const n = p.role.startsWith("supply-") ? netlist.netOf(`${ref}.${p.label}`) : undefined;
        return n && n !== net && n.V && Math.abs(n.V.typ - net.V!.typ) > 0.5;
      });
      const seen = new Set<unknown>();
      return others.flatMap((p): Weighted[] => {
        const n = netlist.netOf(`${ref}.${p.label}`);
        if (seen.has(n)) return [];
        seen.add(n);
        const far = end === w.a ? w.b : w.a;
        return [
          {
            id: `${far} at ${p.label}`,
            at: [far, `${ref}.${p.label}`],
            says: `${told(laid, far)} is fed from ${p.label} (${n.name}) instead of ${net.name}`,
            mend: `Take the power away and move that wire to ${told(laid, end)}.`,
            change: { cut: [w.i], join: [[far, `${ref}.${p.label}`]] },
          },
        ];
      });
    });
  },
};
