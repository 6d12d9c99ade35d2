import { onSpi } from "./on-spi";
import type { Model } from "./types";

/** W5500: two bytes of address, a control byte (block 0, read, variable length), data. It wants a reset of half a millisecond. */
export const w5500: Model = {
  part: "module/w5500",
  worlds: [
    { link: 1, version: 4 },
    { link: 0, version: 4 },
  ],
  within: { link: 0, version: 0 },
  make(w) {
    let low = Infinity;
    let up = Infinity;
    return onSpi(
      {
        reply(heard, now) {
          if (now < up + 1 || heard.length < 3 || heard[2] !== 0x00) return 0;
          const register = ((heard[0]! << 8) | heard[1]!) + heard.length - 3;
          if (register === 0x39) return 4;
          // The line's other bits: speed and duplex as found; it is known 100 ms after the reset.
          if (register === 0x2e) return now < up + 100 ? 0xb8 | (1 - w.link!) : 0xb8 | w.link!;
          return 0;
        },
        end: () => undefined,
      },
      {
        pin(label, level, now) {
          if (label !== "RST") return;
          if (level === 0) low = now;
          else if (now - low >= 0.5) up = now;
        },
      },
    );
  },
};
