import { onSpi } from "./on-spi";
import type { Model } from "./types";

const at = (w: Readonly<Record<string, number>>, ch: number) => w[`c${ch}`]!;

/**
 * MCP3008, bit by bit: the first 1 is the start; then single-ended and three bits of channel; one clock to hold the sample, a 0,
 * and ten bits, the highest first.
 */
export const mcp3008: Model = {
  part: "module/mcp3008",
  worlds: [
    { c0: 0, c1: 1023, c2: 512, c3: 513, c4: 85, c5: 682, c6: 300, c7: 7 },
    { c0: 1023, c1: 1, c2: 2, c3: 4, c4: 8, c5: 16, c6: 32, c7: 64 },
  ],
  within: { c0: 0, c1: 0, c2: 0, c3: 0, c4: 0, c5: 0, c6: 0, c7: 0 },
  make: (w) =>
    onSpi({
      reply(heard) {
        const bits = heard.flatMap((b) => [7, 6, 5, 4, 3, 2, 1, 0].map((k) => (b >> k) & 1));
        const start = bits.indexOf(1);
        if (start < 0 || start + 4 >= bits.length) return 0;
        const [single, d2, d1, d0] = bits.slice(start + 1, start + 5);
        const value = single ? at(w, d2! * 4 + d1! * 2 + d0!) : 0;
        let out = 0;
        for (let k = 0; k < 8; k++) {
          const place = bits.length + k - (start + 7);
          out = (out << 1) | (place >= 0 && place < 10 ? (value >> (9 - place)) & 1 : 0);
        }
        return out;
      },
      end: () => undefined,
    }),
};

const LEVELS = [0, 1, 2048, 1365, 4095, 0xa5c].map((v) => [v, { level: v }] as const);

/** MCP4725: 0x40 writes the converter alone, 0x60 its memory as well, which wears. */
export const mcp4725: Model = {
  part: "module/mcp4725",
  worlds: [{}],
  within: { level: 0 },
  wants: () => LEVELS,
  make() {
    let level = 2048;
    return {
      write(bytes) {
        if (bytes.length !== 3 || bytes[0] !== 0x40) return false;
        level = (bytes[1]! << 4) | (bytes[2]! >> 4);
        if (bytes[2]! & 15) return false;
        return true;
      },
      read: () => null,
      is: () => ({ level }),
    };
  },
};

/** MCP4921: bit 15 must be 0, unbuffered, gain 1, not shut down; taken over when it is let go after 16 bits. */
export const mcp4921: Model = {
  part: "module/mcp4921",
  worlds: [{}],
  within: { level: 0 },
  wants: () => LEVELS,
  make() {
    let level = -1;
    return onSpi(
      {
        reply: () => 0xff,
        end(heard) {
          if (heard.length !== 2) return;
          const word = (heard[0]! << 8) | heard[1]!;
          if (word >> 12 !== 0b0011) return;
          level = word & 0xfff;
        },
      },
      { is: () => ({ level }) },
    );
  },
};
