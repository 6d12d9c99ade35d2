import type { Model } from "./types";

/** VEML7700, left shut down at gain 2: words with the low byte first, named by their command. */
export const veml7700: Model = {
  part: "module/veml7700",
  worlds: [{ lux: 84 }, { lux: 3120 }],
  within: { lux: 1.1 },
  make(w) {
    let config = 0x0801;
    let since = Infinity;
    let command = 0;
    return {
      write(bytes, now) {
        command = bytes[0] ?? 0;
        if (command === 0 && bytes.length === 3) {
          config = bytes[1]! | (bytes[2]! << 8);
          since = config & 1 ? Infinity : now;
        }
        return true;
      },
      read(n, now) {
        const gain = [1, 2, 0.125, 0.25][(config >> 11) & 3]!;
        const time = { 0: 100, 1: 200, 2: 400, 3: 800, 8: 50, 12: 25 }[(config >> 6) & 15] ?? Infinity;
        const counts = now - since >= time + 2.5 ? Math.round(w.lux! / (0.0672 / gain / (time / 100))) : 0;
        const v = command === 4 ? counts : command === 0 ? config : 0;
        return [v & 0xff, v >> 8].slice(0, n);
      },
    };
  },
};
