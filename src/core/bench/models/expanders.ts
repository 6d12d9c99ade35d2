import { registers } from "./registers";
import type { Model } from "./types";

/** PCF8574: a line reads high only while it is let go. Another program has left all of them low. */
export const pcf8574: Model = {
  part: "module/pcf8574",
  worlds: [{ bits: 0b10110001 }, { bits: 0b01001110 }],
  within: { bits: 0, out: 0 },
  wants: (as) => [0b0110_0001, 0, 0b0100_0000, 0b0010_0001].map((v) => [v, { out: v & (as.outs ?? 0) }] as const),
  // A line that is told low reads low.
  feels: (w, as) => ({ bits: as.outs ? (w.bits! & ~as.outs) | (w.bits! & (as.rests ?? 0) & as.outs) : w.bits! }),
  make(w, as) {
    let latch = 0;
    return {
      write(bytes) {
        latch = bytes.at(-1) ?? latch;
        return true;
      },
      read: (n) => Array<number>(n).fill(w.bits! & latch),
      // What is no output must stay let go.
      is: () => ({ out: (latch | (as.outs ?? 0)) === 255 ? latch & (as.outs ?? 0) : NaN }),
    };
  },
};

/** MCP23017, left with all lines as outputs and no pull-ups: an open contact reads high only with its pull-up. */
const LEFT = { 0x00: 0, 0x01: 0, 0x0c: 0, 0x0d: 0 };
export const mcp23017: Model = {
  part: "module/mcp23017",
  worlds: [{ bits: 0b1010_0110_0011_1101 }, { bits: 0b0101_1001_1100_0010 }],
  within: { bits: 0, out: 0 },
  wants: (as) => [0x0f01, 0, 0x0a00, 0x0101].map((v) => [v, { out: v & (as.outs ?? 0) }] as const),
  feels: (w, as) => ({ bits: (w.bits! & ~(as.outs ?? 0)) | ((as.rests ?? 0) & (as.outs ?? 0)) }),
  make(w, as) {
    const [outs, rests] = [as.outs ?? 0, (as.rests ?? 0) & (as.outs ?? 0)];
    let file: ReadonlyMap<number, number> = new Map();
    const word = (r: number) => (file.get(r) ?? 0) | ((file.get(r + 1) ?? 0) << 8);
    /** A line became an output with another level than it rests at. */
    let twitched = false;
    const part = registers({
      // With outputs of its own another program has left it otherwise.
      left: outs ? { 0x00: 255, 0x01: 255, 0x0c: 0, 0x0d: 0, 0x14: ~rests & 255, 0x15: (~rests >> 8) & 255 } : LEFT,
      wrote(r, _v, f) {
        file = f;
        if (r === 0x00 || r === 0x01) twitched ||= ((~word(0x00) & word(0x14)) ^ (~word(0x00) & rests)) !== 0;
        return true;
      },
      value(r, f) {
        file = f;
        if (r !== 0x12 && r !== 0x13) return f.get(r) ?? 0;
        const ins = word(0x00);
        return (((w.bits! & ins & word(0x0c)) | (word(0x14) & ~ins)) >> (8 * (r - 0x12))) & 0xff;
      },
    });
    return {
      ...part,
      is: () => ({ out: !(outs && twitched) && (~word(0x00) & 0xffff) === outs ? word(0x14) & outs : NaN }),
    };
  },
};
