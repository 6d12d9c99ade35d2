import type { Model } from "./types";

/** BH1750: off until it is told; 1.2 counts a lux, first value after 180 ms at most, zero until then. */
export const bh1750: Model = {
  part: "module/bh1750",
  worlds: [{ lux: 312 }, { lux: 27_411 }],
  within: { lux: 1 },
  make(w) {
    let on = false;
    let since = Infinity;
    return {
      write(bytes, now) {
        if (bytes.length !== 1) return false;
        if (bytes[0] === 0x01) on = true;
        else if (bytes[0] === 0x10 && on) since = now;
        return true;
      },
      read(n, now) {
        const v = now - since >= 180 ? Math.round(w.lux! * 1.2) : 0;
        return [v >> 8, v & 0xff].slice(0, n);
      },
    };
  },
};
