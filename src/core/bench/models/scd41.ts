import { commands, word } from "./checked-words";
import type { Model } from "./types";

/** SCD41: takes nothing but reading and stopping while it measures, and begins from wherever the last program left it. */
export const scd41: Model = {
  part: "module/scd41",
  worlds: [
    { co2_ppm: 612, t_C: 23.4, rh_pct: 41.5 },
    { co2_ppm: 2210, t_C: -3.2, rh_pct: 77 },
  ],
  within: { co2_ppm: 0, t_C: 0.02, rh_pct: 0.02 },
  make(w) {
    // It was left measuring.
    let since: number | null = -1e9;
    let stopped = -1e9;
    let taken = -1e9;
    const ready = (now: number) => since !== null && now - Math.max(since, taken) >= 5000;
    return commands({
      0x3f86: {
        ms: 0,
        does(now) {
          since = null;
          stopped = now;
          return true;
        },
      },
      0x21b1: {
        ms: 0,
        does(now) {
          if (since !== null || now - stopped < 500) return false;
          since = now;
          return true;
        },
      },
      0xe4b8: { ms: 1, answer: (_a, now) => (since === null ? null : word(ready(now) ? 0x8006 : 0x8000)) },
      0xec05: {
        ms: 1,
        answer(_a, now) {
          if (!ready(now)) return null;
          taken = now;
          return [w.co2_ppm!, Math.round(((w.t_C! + 45) / 175) * 65536), Math.round((w.rh_pct! / 100) * 65536)].flatMap(
            word,
          );
        },
      },
    });
  },
};
