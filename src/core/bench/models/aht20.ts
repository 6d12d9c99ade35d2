import { checksum } from "./checked-words";
import type { Model } from "./types";

/** AHT20, not calibrated since power-on: two words of twenty bits after 80 ms at most. */
export const aht20: Model = {
  part: "module/aht20",
  worlds: [
    { t_C: 22.8, rh_pct: 55.1 },
    { t_C: -18.3, rh_pct: 12.6 },
  ],
  within: { t_C: 0.03, rh_pct: 0.05 },
  make(w) {
    let calibratedAt = Infinity;
    let asked: number | null = null;
    return {
      write(bytes, now) {
        const text = bytes.join(",");
        if (text === "190,8,0") calibratedAt = now + 10;
        else if (text === "172,51,0") {
          if (now < calibratedAt) return false;
          asked = now;
        } else return false;
        return true;
      },
      read(n, now) {
        const busy = asked === null || now - asked < 80;
        const h = Math.round((w.rh_pct! / 100) * 2 ** 20);
        const t = Math.round(((w.t_C! + 50) / 200) * 2 ** 20);
        const data = [
          busy ? 0x98 : 0x18,
          h >> 12,
          (h >> 4) & 0xff,
          ((h & 15) << 4) | (t >> 16),
          (t >> 8) & 0xff,
          t & 0xff,
        ];
        return [...data, checksum(data)].slice(0, n);
      },
    };
  },
};
