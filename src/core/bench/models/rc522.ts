import { onSpi } from "./on-spi";
import type { Model } from "./types";

/**
 * MFRC522 with a card in its field, or none. The card wakes by seven bits 0x52 or 0x26, answers with two bytes, and is mute at the
 * next call. Its timer ends the wait. It is deaf for 38 ms after its reset.
 */
export const rc522: Model = {
  part: "module/rc522",
  worlds: [
    { card: 1, version: 0x92 },
    { card: 0, version: 0x92 },
    { card: 1, version: 0x91 },
  ],
  within: { card: 0, version: 0 },
  make(w) {
    let file = new Map<number, number>();
    let low = Infinity;
    let up = Infinity;
    let fifo: number[] = [];
    let answered = false;
    let lit = Infinity;
    let ends: { at: number; came: boolean } | null = null;
    const awake = (now: number) => now >= up + 38;
    const settle = (now: number) => {
      if (!ends || now < ends.at) return;
      file.set(0x04, (file.get(0x04) ?? 0) | (ends.came ? 0x30 : 0x01));
      if (ends.came) fifo.push(0x04, 0x00);
      ends = null;
    };
    const value = (r: number) => (r === 0x37 ? w.version! : r === 0x0a ? fifo.length : (file.get(r) ?? 0));
    const transmit = (now: number) => {
      const call = fifo.length === 1 && (fifo[0] === 0x52 || fifo[0] === 0x26) && (file.get(0x0d)! & 7) === 7;
      const field = (file.get(0x14)! & 3) === 3 && file.get(0x15) === 0x40 && (file.get(0x11)! & 3) === 1;
      const reload = ((file.get(0x2c) ?? 0) << 8) | (file.get(0x2d) ?? 0);
      const tick_ms = (2 * ((((file.get(0x2a) ?? 0) & 15) << 8) | (file.get(0x2b) ?? 0)) + 1) / 13_560;
      const own = (file.get(0x2a) ?? 0) & 0x80 ? reload * tick_ms : Infinity;
      // A card that has just come into the field starts for 5 ms; a wait that is too short misses it.
      const hears = call && field && now >= lit + 5 && own > 10 && own < 60 && w.card === 1 && !answered;
      answered = hears;
      fifo = [];
      ends = { at: now + (hears ? 1 : own), came: hears };
    };
    return onSpi(
      {
        reply(heard, now) {
          settle(now);
          return awake(now) && heard.length && (heard[0]! & 0x81) === 0x80 ? value((heard[0]! >> 1) & 0x3f) : 0;
        },
        end(heard, now) {
          settle(now);
          if (!awake(now) || heard.length < 2 || heard[0]! & 0x81) return;
          const r = (heard[0]! >> 1) & 0x3f;
          const v = heard[1]!;
          if (r === 0x09) fifo.push(v);
          else if (r === 0x0a) fifo = v & 0x80 ? [] : fifo;
          else if (r === 0x04) file.set(r, v & 0x80 ? (file.get(r) ?? 0) | v : (file.get(r) ?? 0) & ~v);
          // A command that runs is stopped before the next.
          else if (r === 0x01 && v && file.get(0x01)) file.set(r, 0x0f);
          else file.set(r, v);
          if (r === 0x14 && (v & 3) === 3) lit = Math.min(lit, now);
          if (r === 0x01) ends = null;
          if (r === 0x0d && v & 0x80 && file.get(0x01) === 0x0c) transmit(now);
        },
      },
      {
        pin(label, level, now) {
          if (label !== "RST") return;
          if (level === 0) low = now;
          else if (now > low) {
            up = now;
            file = new Map();
            fifo = [];
          }
        },
      },
    );
  },
};
