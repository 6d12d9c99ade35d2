import type { FaultKind, Weighted } from "../types";
import { named, standing } from "../around";

export const deadPart: FaultKind = {
  id: "dead-part",
  name: "a part that is broken",
  often: 0.15,
  because: "less often than anybody thinks: most parts that seem dead are wired wrong",
  minutes: 10,
  find: (laid) =>
    standing(laid).flatMap((inst): Weighted[] =>
      inst.part.pins.length < 2 || (inst.inserted && inst.part.elements.every((e) => e.kind === "resistor"))
        ? []
        : [
            {
              id: inst.ref,
              at: [inst.ref],
              says: `${named(laid, inst.ref)} itself is broken`,
              mend: "Try another of its kind, after everything around it is found right.",
              times: inst.part.board ? 0.5 : 1,
              change: { dead: [inst.ref] },
            },
          ],
    ),
};
