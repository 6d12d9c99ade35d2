import type { Model } from "./types";

const bytesOf = (bits: number, n: number) =>
  Array.from({ length: n }, (_, i) => Math.floor(bits / 2 ** (8 * i)) & 0xff);

/** 74HC595: what came last is in the register beside the board. */
export const hc595: Model = {
  part: "module/74hc595",
  worlds: [{}],
  within: { bits: 0 },
  wants: (as) =>
    [0b1011_0001, 0, 2 ** (8 * (as.chain ?? 1)) - 2, 0x5a, 0xa5c3f0 % 2 ** (8 * (as.chain ?? 1))].map(
      (v) => [v, { bits: v }] as const,
    ),
  make(_w, as) {
    let held: number[] = Array<number>(as.chain ?? 1).fill(0x99);
    return {
      write(bytes) {
        held = [...held, ...bytes].slice(-held.length);
        return true;
      },
      read: () => null,
      is: () => ({ bits: [...held].reverse().reduce((s, b, i) => s + b * 2 ** (8 * i), 0) }),
    };
  },
};

/** 74HC165: the register beside the board comes first. */
export const hc165: Model = {
  part: "module/74hc165",
  worlds: [{ bits: 0b1011_0001 }, { bits: 0 }, { bits: 0xa5c3f0 }],
  within: { bits: 0 },
  // What is beyond the chain is not there.
  feels: (w, as) => ({ bits: w.bits! % 2 ** (8 * (as.chain ?? 1)) }),
  make: (w, as) => ({
    write: () => true,
    read: (n) => [...bytesOf(w.bits!, as.chain ?? 1), ...Array<number>(n).fill(0)].slice(0, n),
  }),
};

/** Four by four keys: a bit for each, row by row; of two pressed ones the lower counts. */
export const keypad: Model = {
  part: "module/keypad-4x4",
  worlds: [{ key: 0 }, { key: 1 }, { key: 6 }, { key: 9 }, { key: 16 }],
  within: { key: 0 },
  settles: 60,
  make: (w) => ({
    write: () => true,
    read: (n, now) => bytesOf(w.key && now > 5 ? 2 ** (w.key - 1) : 0, n),
  }),
};
