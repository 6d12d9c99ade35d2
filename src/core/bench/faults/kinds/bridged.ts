import type { FaultKind, Weighted } from "../types";
import { beside, sameNet, standing, told, wiredPins } from "../around";

export const bridged: FaultKind = {
  id: "bridged",
  name: "neighbours that touch",
  often: 0.3,
  because: "solder between two pins, or bare ends that touch",
  minutes: 3,
  find: (laid) =>
    standing(laid).flatMap((inst): Weighted[] =>
      wiredPins(laid, inst.ref).flatMap((a) =>
        beside(laid, a).flatMap((b): Weighted[] => {
          const both = wiredPins(laid, inst.ref).includes(b);
          if (sameNet(laid, a, b) || (both && a > b)) return [];
          return [
            {
              id: `${a} ${b}`,
              at: [a, b],
              says: `${told(laid, a)} and its neighbour ${told(laid, b)} touch`,
              mend: "Take the power away, look for a bridge of solder or bare wire there, and part the two.",
              times: both ? 1 : 0.5,
              change: { join: [[a, b]] },
            },
          ];
        }),
      ),
    ),
};
