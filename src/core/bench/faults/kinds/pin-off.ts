import type { FaultKind, Weighted } from "../types";
import { beside, movedTo, sameNet, told } from "../around";

export const pinOff: FaultKind = {
  id: "pin-off",
  name: "a wire one pin or hole off",
  often: 0.5,
  because: "miscounted on a header, or one row further on a breadboard",
  minutes: 1,
  find: (laid) =>
    laid.wires.flatMap((w): Weighted[] =>
      w.cable
        ? []
        : [w.a, w.b].flatMap((end) =>
            beside(laid, end)
              .filter((to) => !sameNet(laid, end, to))
              .map((to) => ({
                id: `${w.a} ${w.b} at ${to}`,
                at: [end, to],
                says: `The wire for ${told(laid, end)} is one place off, at ${told(laid, to)}`,
                mend: `Move that end by one, to ${told(laid, end)}.`,
                change: movedTo(w, end, to),
              })),
          ),
    ),
};
