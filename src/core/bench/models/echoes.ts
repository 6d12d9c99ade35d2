import type { Model } from "./types";

/** Ultrasound there and back: 58.3 us a centimetre at 20 degrees (343 m/s). */
const US_A_CM = 2e4 / 343;
/** It holds its line high so long when it hears nothing. */
const NOTHING_US = 38_000;
/** A pulse that comes sooner hears the last one's echo from afar. */
const QUIET_MS = 60;

/** Asked for bytes it says how long the line was high by then, in microseconds, as two of them; 0 while it has not ended. */
const model = (part: string, near_cm = 2): Model => ({
  part,
  // The nearest that it hears, something in the middle, and far away.
  worlds: [{ cm: 42 }, { cm: near_cm + 1 }, { cm: 391 }],
  // A centimetre of the part's own, and what the rounded speed of sound makes of far ones.
  within: { cm: 3 },
  make(w) {
    let sent = -Infinity;
    let us = 0;
    return {
      write(_b, now) {
        us = now - sent < QUIET_MS ? 200 : w.cm! > 400 ? NOTHING_US : Math.round(w.cm! * US_A_CM);
        sent = now;
        return true;
      },
      read(_n, now) {
        const t = (now - sent) * 1000 >= us ? us : 0;
        return [t >> 8, t & 0xff];
      },
    };
  },
});

export const echoes = [
  model("module/hc-sr04"),
  model("module/ultrasonic-3v3"),
  model("module/ultrasonic-waterproof", 25),
];
