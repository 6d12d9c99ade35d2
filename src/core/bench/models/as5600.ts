import { high, registers } from "./registers";
import type { Model } from "./types";

/** AS5600: twelve bits of angle; without a magnet the angle stands anywhere. */
export const as5600: Model = {
  part: "module/as5600",
  worlds: [{ angle_deg: 12.4 }, { angle_deg: 283.6 }],
  within: { angle_deg: 0.15 },
  make: (w) =>
    registers({
      value: (r) =>
        r === 0x0b
          ? 0x20
          : r === 0x0e || r === 0x0f
            ? high(Math.floor((w.angle_deg! / 360) * 4096))[r - 0x0e]!
            : r === 0x0c || r === 0x0d
              ? 0x0a
              : 0,
    }),
};
