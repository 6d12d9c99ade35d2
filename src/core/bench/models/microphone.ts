import type { Model } from "./types";

/** INMP441: what its samples reach in a moment, of the 24 bits that they have; nothing at all in its first 85 ms. */
export const inmp441: Model = {
  part: "module/inmp441",
  worlds: [{ loud: 0.14 }, { loud: 37.5 }, { loud: 99.9 }, { loud: 1.02 }],
  within: { loud: 0.02 },
  make(w) {
    const span = Math.round((w.loud! / 100) * 2 ** 24);
    return {
      write: () => true,
      read: (n, now) => (now < 85 ? null : [span >> 16, (span >> 8) & 255, span & 255].slice(0, n)),
    };
  },
};
