import { high, low, registers } from "./registers";
import type { Model } from "./types";

/** LSM6DS3, powered down, left with the high byte first and 16 g. */
export const lsm6ds3: Model = {
  part: "module/lsm6ds3",
  worlds: [
    { x_g: 0.3, y_g: -0.4, z_g: 0.9 },
    { x_g: -1.8, y_g: 1.1, z_g: -0.05 },
  ],
  within: { x_g: 0.002, y_g: 0.002, z_g: 0.002 },
  make(w) {
    let since = Infinity;
    let deaf = -1;
    return registers({
      left: { 0x10: 0x04, 0x12: 0x26 },
      wrote(r, v, _f, now) {
        // Its reset takes 50 us, in which nothing is taken.
        if (r === 0x12 && v & 0x01) deaf = now + 0.05;
        if (r === 0x10) since = v >> 4 && now > deaf ? now : Infinity;
        return true;
      },
      value(r, f, now) {
        if (r === 0x0f) return 0x69;
        // Without automatic increment every byte is that of the register named.
        if (r < 0x28 || r > 0x2d) return f.get(r) ?? 0;
        const control = f.get(0x12)!;
        if (now - since < 9.6 || !(control & 0x04)) return 0;
        const mg = [0.061, 0.488, 0.122, 0.244][(f.get(0x10)! >> 2) & 3]!;
        const order = control & 0x20 ? high : low;
        return [w.x_g!, w.y_g!, w.z_g!].flatMap((g) => order(Math.round((g * 1000) / mg)))[r - 0x28]!;
      },
    });
  },
};
