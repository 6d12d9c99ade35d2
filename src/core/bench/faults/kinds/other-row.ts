import { findPin } from "../../../parts/catalogue";
import { splitEnd } from "../../../project";
import type { FaultKind, Weighted } from "../types";
import { named, standing } from "../around";

export const otherRow: FaultKind = {
  id: "other-row",
  name: "wires in the other row of a header",
  often: 0.3,
  because: "counted right, on the wrong side of the board",
  minutes: 2,
  find: (laid) =>
    standing(laid).flatMap((inst): Weighted[] => {
      if (inst.part.board || inst.inserted) return [];
      const cut: number[] = [];
      const join: [string, string][] = [];
      for (const w of laid.wires) {
        if (w.cable) continue;
        const [own, far] = splitEnd(w.a).ref === inst.ref ? [w.a, w.b] : [w.b, w.a];
        if (splitEnd(own).ref !== inst.ref) continue;
        const { ref, pin } = splitEnd(far);
        const board = laid.c.netlist.instance(ref)?.part;
        const def = board?.board && findPin(board, pin);
        const headers = [...new Set(board?.pins.flatMap((p) => (p.at ? [p.at.header] : [])) ?? [])];
        if (!def || !def.at || headers.length !== 2) continue;
        const across = board!.pins.find((p) => p.at?.index === def.at!.index && p.at.header !== def.at!.header);
        if (!across) continue;
        cut.push(w.i);
        join.push([own, `${ref}.${across.label}`]);
      }
      if (cut.length < 2) return [];
      return [
        {
          id: inst.ref,
          at: [inst.ref],
          says: `The wires of ${named(laid, inst.ref)} are in the other row of the board`,
          mend: "Move them straight across to the other row.",
          change: { cut, join },
        },
      ];
    }),
};
