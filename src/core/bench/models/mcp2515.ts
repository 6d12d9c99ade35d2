import { onSpi } from "./on-spi";
import type { Model } from "./types";

/**
 * MCP2515 inside a running bus of 125 kbit/s: reset takes 128 clocks of its crystal; in loop-back a frame that is sent comes into
 * its own receiver; listening, frames come at 300, 700 and 1100 ms.
 */
export const mcp2515: Model = {
  part: "module/mcp2515",
  worlds: [{ frames: 3, id: 0x2a7 }],
  within: { frames: 0, id: 0 },
  settles: 1600,
  make(w, as) {
    const MHz = parseInt(String(as.options?.crystal ?? "8mhz"));
    // Left listening by another program, with filters on and a frame in it.
    let file = new Map<number, number>([
      [0x0e, 0x60],
      [0x0f, 0x60],
      [0x2c, 0x01],
      [0x60, 0x00],
    ]);
    let ready = 0;
    const due = [300, 700, 1100];
    let since: number | null = null;
    const get = (r: number) => file.get(r) ?? 0;
    /** Kilobits a second by its timing registers, and where in the bit it samples. */
    const timing = () => {
      const tq_us = (2 * ((get(0x2a) & 0x3f) + 1)) / MHz;
      const before = 1 + (get(0x29) & 7) + 1 + ((get(0x29) >> 3) & 7) + 1;
      const after = (get(0x28) & 7) + 1;
      return { kbit: 1000 / (tq_us * (before + after)), at: before / (before + after), own: (get(0x29) & 0x80) !== 0 };
    };
    const fits = () => {
      const t = timing();
      return Math.abs(t.kbit - 125) < 0.5 && t.at > 0.7 && t.at < 0.9 && t.own;
    };
    const receive = (bytes: readonly number[]) => {
      // Filters on, and none of them set: nothing comes in. Full: what comes is lost.
      if ((get(0x60) & 0x60) !== 0x60 || get(0x2c) & 1) return;
      bytes.forEach((v, i) => file.set(0x61 + i, v));
      file.set(0x2c, get(0x2c) | 1);
    };
    const bus = (now: number) => {
      if (get(0x0e) >> 5 !== 3 || !fits()) return;
      since ??= now;
      while (due.length && now >= since + due[0]!) {
        due.shift();
        receive([w.id! >> 3, (w.id! & 7) << 5, 0, 0, 2, 1, 2]);
      }
    };
    const set = (r: number, v: number) => {
      if (r === 0x0e) return;
      // Timing is only to be set right after a reset.
      if (r >= 0x28 && r <= 0x2a && get(0x0e) >> 5 !== 4) return;
      file.set(r, v);
      if (r === 0x0f) file.set(0x0e, v & 0xe0);
    };
    return onSpi({
      reply(heard, now) {
        bus(now);
        if (now < ready || heard.length < 2 || heard[0] !== 0x03) return 0;
        return get(heard[1]! + heard.length - 2);
      },
      end(heard, now) {
        bus(now);
        const c = heard[0];
        if (c === 0xc0) {
          file = new Map([
            [0x0e, 0x80],
            [0x0f, 0x87],
          ]);
          ready = now + 2;
          return;
        }
        if (now < ready) return;
        if (c === 0x02) heard.slice(2).forEach((v, i) => set(heard[1]! + i, v));
        else if (c === 0x05) set(heard[1]!, (get(heard[1]!) & ~heard[2]!) | (heard[3]! & heard[2]!));
        else if (c === 0x40) heard.slice(1).forEach((v, i) => set(0x31 + i, v));
        else if (c === 0x81 && get(0x0e) >> 5 === 2 && fits()) receive([0x31, 0x32, 0x33, 0x34, 0x35, 0x36].map(get));
      },
    });
  },
};
