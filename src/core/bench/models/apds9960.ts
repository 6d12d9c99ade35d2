import { low, registers } from "./registers";
import type { Model } from "./types";

/** APDS9960, off: light adds up over its time, 2.78 ms a step; nearness is ready sooner. */
export const apds9960: Model = {
  part: "module/apds9960",
  worlds: [
    { light: 812, near: 12 },
    { light: 40_333, near: 201 },
  ],
  within: { light: 0, near: 0 },
  make(w) {
    let since = Infinity;
    return registers({
      left: { 0x80: 0, 0x81: 0xff },
      wrote(r, v, _f, now) {
        if (r === 0x80) since = v & 1 ? now : Infinity;
        return true;
      },
      value(r, f, now) {
        if (r === 0x92) return 0xab;
        const steps = 256 - f.get(0x81)!;
        const enabled = f.get(0x80)!;
        const lightReady = enabled & 2 && now - since >= steps * 2.78 + 7;
        // What is counted in a shorter time is less.
        if (r === 0x94 || r === 0x95) return lightReady ? low(Math.round((w.light! * steps) / 74))[r - 0x94]! : 0;
        if (r === 0x9c) return enabled & 4 && now - since >= 10 ? w.near! : 0;
        return f.get(r) ?? 0;
      },
    });
  },
};
