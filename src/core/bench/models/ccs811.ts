import { high } from "./registers";
import type { Model } from "./types";

/** CCS811, in its boot loader: the program is started by naming a register; a value each second in mode 1. */
export const ccs811: Model = {
  part: "module/ccs811",
  worlds: [
    { co2_ppm: 521, voc_ppb: 18 },
    { co2_ppm: 3100, voc_ppb: 410 },
  ],
  within: { co2_ppm: 0, voc_ppb: 0 },
  make(w) {
    let register = 0;
    let runs = Infinity;
    let since = Infinity;
    let taken = 0;
    return {
      write(bytes, now) {
        register = bytes[0] ?? 0;
        if (register === 0xf4 && bytes.length === 1) runs = now + 1;
        if (register === 0x01 && bytes.length === 2 && now >= runs) since = bytes[1] === 0x10 ? now : Infinity;
        return true;
      },
      read(n, now) {
        const ready = now - Math.max(since, taken) >= 1000;
        if (register === 0x20) return [0x81].slice(0, n);
        if (register === 0) return [(now >= runs ? 0x90 : 0x10) | (ready ? 8 : 0)].slice(0, n);
        if (register !== 2 || !ready) return Array<number>(n).fill(0);
        taken = now;
        return [...high(w.co2_ppm!), ...high(w.voc_ppb!), 0x98, 0, 0, 0].slice(0, n);
      },
    };
  },
};
