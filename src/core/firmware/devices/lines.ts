import { count, read, work } from "./steps";
import type { DeviceKind, Step } from "./types";

const LATCH = { data: "SER", clock: "SRCLK", latch: "RCLK", way: "out" } as const;
/** More than three do not fit into a number. */
const MOST = 3;

/** 74HC595: bit 0 is output QA of the register beside the board; what goes out first ends furthest away. */
export const hc595: DeviceKind = {
  id: "module/74hc595",
  cases: [{ chain: 1 }, { chain: 3 }],
  of: ({ chain, outs = 0, rests = 0 }) => {
    const n = Math.min(chain, MOST);
    return {
      id: "module/74hc595",
      over: { kind: "shift", ...LATCH },
      begin: [],
      read: [
        {
          do: "write",
          bytes: [
            ...Array<number>(chain - n).fill(0),
            ...Array.from({ length: n }, (_, i) => `want >> ${8 * (n - 1 - i)} & 255`),
          ],
        } satisfies Step,
      ],
      every: 20,
      out: [],
      takes: { word: "bits", unit: "", digits: 0, range: [0, 2 ** (8 * n) - 1], rest: rests & outs },
      // Parts of the project on its outputs are shown one by one, each with its own care: all of them stay at rest here.
      proof: outs
        ? { kind: "seen", show: [rests & outs], question: "Does all that hangs on its outputs do what it is told?" }
        : {
            kind: "seen",
            show: [2 ** (8 * n) - 1, 0],
            question: "Were all its outputs on for a moment?",
            careful: "keep clear of what hangs on its outputs,",
          },
    };
  },
};

/** 74HC165: bit 7 of the register beside the board comes first. */
export const hc165: DeviceKind = {
  id: "module/74hc165",
  cases: [{ chain: 1 }, { chain: 3 }],
  of: ({ chain }) => {
    const n = Math.min(chain, MOST);
    const bits = ["u8(0)", ...Array.from({ length: n - 1 }, (_, i) => `u8(${i + 1}) << ${8 * (i + 1)}`)].join(" | ");
    return {
      id: "module/74hc165",
      over: { kind: "shift", data: "QH", clock: "CLK", latch: "SH/LD", way: "in" },
      begin: [],
      read: [read(chain), work("bits", bits)],
      every: 20,
      out: [count("bits", "in", [0, 2 ** (8 * n) - 1])],
      proof: { kind: "watch", act: "change one of its inputs and hold", by: 1 },
    };
  },
};
