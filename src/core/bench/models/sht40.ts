import { commands, word } from "./checked-words";
import type { Model } from "./types";

const raw = (world: Record<string, number>) => [
  Math.round(((world.t_C! + 45) / 175) * 65535),
  Math.round(((world.rh_pct! + 6) / 125) * 65535),
];

/** SHT4x, one command of one byte, high precision: 8.3 ms at most. */
export const sht40: Model = {
  part: "module/sht40",
  worlds: [
    { t_C: 21.37, rh_pct: 48.2 },
    { t_C: -12.5, rh_pct: 91.7 },
    { t_C: 60.1, rh_pct: 0 },
    { t_C: 5, rh_pct: 100 },
  ],
  within: { t_C: 0.02, rh_pct: 0.02 },
  make: (w) => commands({ 0xfd00: { ms: 8.3, answer: () => raw(w).flatMap(word) } }),
};
