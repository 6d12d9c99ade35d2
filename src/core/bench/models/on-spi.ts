import type { BusPart, SpiPart } from "./types";

/** A part on SPI as messages: bytes out, then bytes in, all while it is selected. */
export function onSpi(spi: SpiPart, more: Pick<BusPart, "pin" | "is"> = {}): BusPart {
  // What a part that must be woken hears while it answers is ones.
  const idle = spi.wakes ? 0xff : 0;
  const swap = (out: readonly number[], n: number, now: number) => {
    const heard: number[] = [];
    const got: number[] = [];
    for (let i = 0; i < out.length + n; i++) {
      got.push(spi.reply(heard, now) & 0xff);
      heard.push(out[i] ?? idle);
    }
    spi.end(heard, now);
    return got.slice(out.length);
  };
  return {
    spi,
    ...more,
    write: (bytes, now) => {
      swap(bytes, 0, now);
      return true;
    },
    read: (n, now) => swap([], n, now),
    ask: swap,
  };
}
