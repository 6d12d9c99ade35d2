import { commands, word } from "./checked-words";
import type { Model } from "./types";

const raw = (world: Record<string, number>) => [
  Math.round(((world.t_C! + 45) / 175) * 65535),
  Math.round((world.rh_pct! / 100) * 65535),
];

/** SHT31, single shot, high repeatability without clock stretching: 15.5 ms at most. */
export const sht31: Model = {
  part: "module/sht31",
  worlds: [
    { t_C: 21.37, rh_pct: 48.2 },
    { t_C: -12.5, rh_pct: 91.7 },
  ],
  within: { t_C: 0.02, rh_pct: 0.02 },
  make: (w) => commands({ 0x2400: { ms: 15.5, answer: () => raw(w).flatMap(word) } }),
};
