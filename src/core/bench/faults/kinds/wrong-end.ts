import type { FaultKind, Weighted } from "../types";
import { movedTo, standing, told, wiresAt } from "../around";

/** Pairs of a group's pins that are taken for each other: what goes in, and what comes out. */
const PAIRS: Record<string, readonly (readonly [string, string])[]> = {
  chain: [
    ["in", "out"],
    ["clockIn", "clockOut"],
  ],
  spi: [["mosi", "miso"]],
};

export const wrongEnd: FaultKind = {
  id: "wrong-end",
  name: "data-in taken for data-out",
  often: 1,
  because: "both ends look alike, only an arrow tells them apart",
  minutes: 1,
  find: (laid) =>
    standing(laid).flatMap((inst): Weighted[] =>
      inst.part.groups.flatMap((g) =>
        (PAIRS[g.kind] ?? []).flatMap(([i, o]): Weighted[] => {
          const [into, out] = [g.pins[i], g.pins[o]];
          if (!into || !out || into === out) return [];
          const [x, y] = [`${inst.ref}.${into}`, `${inst.ref}.${out}`];
          const [wire, ...more] = wiresAt(laid, x);
          // With wires at both it is two that are swapped.
          if (!wire || more.length || wiresAt(laid, y).length) return [];
          return [
            {
              id: x,
              at: [x, y],
              says: `The wire for ${told(laid, x)} is at ${out}, where the data comes out`,
              mend: `Move it to ${into}, the end at which the arrow points in.`,
              change: movedTo(wire, x, y),
            },
          ];
        }),
      ),
    ),
};
