import { low, registers } from "./registers";
import type { Model } from "./types";

/** ADXL345, in standby, left at 10 bits and 16 g: 3.9 mg a count in full resolution only. */
export const adxl345: Model = {
  part: "module/adxl345",
  worlds: [
    { x_g: 0.1, y_g: -0.98, z_g: 0.33 },
    { x_g: -1.5, y_g: 0.7, z_g: -1.9 },
  ],
  within: { x_g: 0.006, y_g: 0.006, z_g: 0.006 },
  make(w) {
    let since = Infinity;
    return registers({
      left: { 0x31: 0x03, 0x2d: 0 },
      wrote(r, v, _f, now) {
        if (r === 0x2d) since = v & 0x08 ? now : Infinity;
        return true;
      },
      value(r, f, now) {
        if (r === 0x00) return 0xe5;
        if (r < 0x32 || r > 0x37) return f.get(r) ?? 0;
        if (now - since < 11.1) return 0;
        const format = f.get(0x31)!;
        const mg = format & 0x08 ? 3.9 : 3.9 * 2 ** (format & 3);
        // Left-justified data are another order.
        const shift = format & 0x04 ? 64 : 1;
        return [w.x_g!, w.y_g!, w.z_g!].flatMap((g) => low(Math.round((g * 1000) / mg) * shift))[r - 0x32]!;
      },
    });
  },
};
