import { high, registers } from "./registers";
import type { Model } from "./types";

/** MPU6050, left asleep and at 16 g by another program; 30 ms from waking until all three gyroscopes run. */
export const mpu6050: Model = {
  part: "module/mpu6050",
  worlds: [
    { x_g: 0.02, y_g: -0.51, z_g: 0.86, t_C: 24.6 },
    { x_g: -1.7, y_g: 1.3, z_g: -0.2, t_C: -8.1 },
  ],
  within: { x_g: 0.002, y_g: 0.002, z_g: 0.002, t_C: 0.02 },
  make(w) {
    let awake = Infinity;
    let scaled = Infinity;
    return registers({
      left: { 0x6b: 0x40, 0x1c: 0x18 },
      wrote(r, v, _f, now) {
        if (r === 0x6b) awake = v & 0x40 ? Infinity : now + 30;
        if (r === 0x1c) scaled = now + 1;
        return true;
      },
      value(r, f, now) {
        if (r === 0x75) return 0x68;
        if (r < 0x3b || r > 0x48) return f.get(r) ?? 0;
        if (now < awake) return 0;
        const range = now >= scaled ? (f.get(0x1c)! >> 3) & 3 : 3;
        const g = 16384 / 2 ** range;
        const words = [w.x_g! * g, w.y_g! * g, w.z_g! * g, (w.t_C! - 36.53) * 340, 0, 0, 0];
        return words.flatMap((v) => high(Math.round(v)))[r - 0x3b]!;
      },
    });
  },
};
