import { low } from "./registers";
import type { Model } from "./types";

/** MLX90614: words of the memory, the low byte first, with a packet check behind. */
export const mlx90614: Model = {
  part: "module/mlx90614",
  worlds: [
    { seen_C: 36.6, own_C: 22.3 },
    { seen_C: -21.4, own_C: -4.7 },
  ],
  within: { seen_C: 0.02, own_C: 0.02 },
  make(w) {
    let cell = 0;
    return {
      write(bytes) {
        cell = bytes[0] ?? 0;
        return true;
      },
      read(n) {
        const t = cell === 7 ? w.seen_C! : cell === 6 ? w.own_C! : null;
        if (t === null) return [0, 0x80, 0].slice(0, n);
        const [a, b] = low(Math.round((t + 273.15) / 0.02));
        const address = 0x5a << 1;
        let crc = 0;
        for (const x of [address, cell, address | 1, a!, b!]) {
          crc ^= x;
          for (let i = 0; i < 8; i++) crc = ((crc << 1) ^ (crc & 0x80 ? 7 : 0)) & 0xff;
        }
        return [a!, b!, crc].slice(0, n);
      },
    };
  },
};
