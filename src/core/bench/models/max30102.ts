import { high } from "./registers";
import type { Model } from "./types";

/** MAX30102, left off: a queue of samples, three bytes a light; full, it stands still unless it may roll over. */
export const max30102: Model = {
  part: "module/max30102",
  worlds: [
    { red: 81_234, infra: 102_400 },
    { red: 712, infra: 250_001 },
  ],
  within: { red: 0, infra: 0 },
  make(w) {
    const file = new Map<number, number>([
      [0x08, 0x0f],
      [0x09, 0],
      [0x0a, 0],
      [0x0c, 0],
      [0x0d, 0],
    ]);
    let register = 0;
    let since = Infinity;
    return {
      write(bytes, now) {
        register = bytes[0] ?? 0;
        for (const [i, v] of bytes.slice(1).entries()) file.set(register + i, v);
        if (bytes.length > 1 && register === 0x09)
          since = (bytes[1]! & 7) === 3 && !(bytes[1]! & 0xc0) ? now : Infinity;
        return true;
      },
      read(n, now) {
        if (register === 0xff) return [0x15].slice(0, n);
        if (register !== 0x07) return Array<number>(n).fill(0);
        const setting = file.get(0x0a)!;
        const rate = [50, 100, 200, 400, 800, 1000, 1600, 3200][(setting >> 2) & 7]!;
        const cut = 3 - (setting & 3);
        const averaged = 2 ** Math.min(5, file.get(0x08)! >> 5);
        const there = now - since >= (1000 / rate) * averaged;
        const stuck = !(file.get(0x08)! & 0x10) && now - since > 32 * (1000 / rate) * averaged;
        const lamp = (r: number, v: number) =>
          there && !stuck ? (Math.min(0x3ffff, Math.round((v * file.get(r)!) / 0x24)) >> cut) << cut : 0;
        return [...high(lamp(0x0c, w.red!), 3), ...high(lamp(0x0d, w.infra!), 3)].slice(0, n);
      },
    };
  },
};
