import { registers } from "./registers";
import type { Model } from "./types";

/** ADS1115, single shot: its setting says which input, which full scale, how many a second; up to 10 % slow. */
export const ads1115: Model = {
  part: "module/ads1115",
  worlds: [
    { a0_V: 1.234, a1_V: 0.02, a2_V: 3.3, a3_V: 2.048 },
    { a0_V: -0.12, a1_V: 4.01, a2_V: 0.5, a3_V: 1.0 },
    { a0_V: 0.7, a1_V: -0.2, a2_V: -0.05, a3_V: -0.25 },
  ],
  within: { a0_V: 0.001, a1_V: 0.001, a2_V: 0.001, a3_V: 0.001 },
  make(w) {
    let done = -1;
    return registers({
      width: 2,
      left: { 1: 0x8583 },
      wrote(r, v, _f, now) {
        if (r === 1 && v & 0x8000) done = now + (1000 / [8, 16, 32, 64, 128, 250, 475, 860][(v >> 5) & 7]!) * 1.1;
        return true;
      },
      value(r, f, now) {
        const config = f.get(1)!;
        if (r === 1) return (config & 0x7fff) | (now >= done ? 0x8000 : 0);
        if (r !== 0 || now < done) return 0;
        const full = [6.144, 4.096, 2.048, 1.024, 0.512, 0.256, 0.256, 0.256][(config >> 9) & 7]!;
        const mux = (config >> 12) & 7;
        const v = [w.a0_V!, w.a1_V!, w.a2_V!, w.a3_V!];
        const volts = mux >= 4 ? v[mux - 4]! : v[0]! - v[1]!;
        const counts = Math.max(-32768, Math.min(32767, Math.round((volts / full) * 32768)));
        return counts < 0 ? counts + 65536 : counts;
      },
    });
  },
};
