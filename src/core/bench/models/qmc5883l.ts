import { low, registers } from "./registers";
import type { Model } from "./types";

/** QMC5883L, in standby at 2 gauss, its period register as after power-on. */
export const qmc5883l: Model = {
  part: "module/qmc5883l",
  worlds: [
    { x_G: 0.21, y_G: -0.33, z_G: 0.44 },
    { x_G: -2.6, y_G: 1.9, z_G: -0.02 },
  ],
  within: { x_G: 0.001, y_G: 0.001, z_G: 0.001 },
  make(w) {
    let since = Infinity;
    return registers({
      left: { 0x09: 0, 0x0b: 0 },
      wrote(r, v, _f, now) {
        if (r === 0x09) since = (v & 3) === 1 ? now : Infinity;
        return true;
      },
      value(r, f, now) {
        const ready = now - since >= 1000 / [10, 50, 100, 200][(f.get(0x09)! >> 2) & 3]!;
        if (r === 0x0d) return 0xff;
        if (r === 0x06) return ready ? 1 : 0;
        if (r > 5) return f.get(r) ?? 0;
        // Set and reset as recommended, or the offset of the last magnet stays.
        const offset = f.get(0x0b) === 0x01 ? 0 : 700;
        const counts = (f.get(0x09)! >> 4) & 3 ? 3000 : 12_000;
        return ready ? [w.x_G!, w.y_G!, w.z_G!].flatMap((g) => low(Math.round(g * counts) + offset))[r]! : 0;
      },
    });
  },
};
