import type { FaultKind, Weighted } from "../types";
import { named, standing } from "../around";

/** From this size on a capacitor carries a load through its start; a smaller one keeps noise away. */
const BULK_F = 10e-6;

export const capacitor: FaultKind = {
  id: "capacitor",
  name: "a missing capacitor",
  often: 0.4,
  because: "everything works without it, until something big starts",
  minutes: 2,
  find: (laid) =>
    standing(laid).flatMap((inst): Weighted[] => {
      const e = laid.c.netlist.elements.find((x) => x.ref === inst.ref && x.kind === "capacitor");
      if (!e || inst.part.elements.length !== 1 || !((e.F ?? 0) >= BULK_F)) return [];
      const cut = laid.wires.filter((w) => [w.a, w.b].some((t) => t.startsWith(`${inst.ref}.`))).map((w) => w.i);
      return [
        {
          id: inst.ref,
          at: [inst.ref],
          says: `${named(laid, inst.ref)} is missing, or dried out`,
          mend: "Put it in close to the part that draws, stripe to ground.",
          change: { cut, restarts: true },
        },
      ];
    }),
};
