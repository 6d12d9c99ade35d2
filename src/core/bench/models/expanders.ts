import { registers } from "./registers";
import type { Model } from "./types";

/** PCF8574: a line reads high only while it is let go. Another program has left all of them low. */
export const pcf8574: Model = {
  part: "module/pcf8574",
  worlds: [{ bits: 0b10110001 }, { bits: 0b01001110 }],
  within: { bits: 0 },
  make(w) {
    let latch = 0;
    return {
      write(bytes) {
        latch = bytes.at(-1) ?? latch;
        return true;
      },
      read: (n) => Array<number>(n).fill(w.bits! & latch),
    };
  },
};

/** MCP23017, left with all lines as outputs and no pull-ups: an open contact reads high only with its pull-up. */
export const mcp23017: Model = {
  part: "module/mcp23017",
  worlds: [{ bits: 0b1010_0110_0011_1101 }, { bits: 0b0101_1001_1100_0010 }],
  within: { bits: 0 },
  make: (w) =>
    registers({
      left: { 0x00: 0, 0x01: 0, 0x0c: 0, 0x0d: 0 },
      value(r, f) {
        if (r !== 0x12 && r !== 0x13) return f.get(r) ?? 0;
        const port = r - 0x12;
        return (w.bits! >> (8 * port)) & 0xff & f.get(port)! & f.get(0x0c + port)!;
      },
    }),
};
