import type { FaultKind, Weighted } from "../types";
import { named, standing } from "../around";

/** A worn battery or a supply beyond its limit, as a share of its volts. */
const SHARE = 0.75;

export const sagging: FaultKind = {
  id: "sagging",
  name: "a supply that sags",
  often: 0.7,
  because: "worn cells, a thin cable, a charger that gives less than it says",
  minutes: 5,
  find: (laid) =>
    standing(laid).flatMap((inst): Weighted[] => {
      const source = Object.values(inst.part.supplies).find((s) => s.source)?.source;
      if (!source || inst.part.board) return [];
      return [
        {
          id: inst.ref,
          at: [inst.ref],
          says: `${named(laid, inst.ref)} gives too few volts under load`,
          mend: source.chemistry ? "Put in fresh cells." : "Try another supply or a shorter, thicker cable.",
          times: source.chemistry ? 1 : 0.4,
          change: { sag: { ref: inst.ref, share: SHARE } },
        },
      ];
    }),
};
