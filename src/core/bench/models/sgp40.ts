import { commands, word } from "./checked-words";
import type { Model } from "./types";

/** SGP40: humidity and temperature come with their checksums, else it does not answer; the signal depends on both. */
export const sgp40: Model = {
  part: "module/sgp40",
  worlds: [{ raw: 30_512 }, { raw: 251 }],
  within: { raw: 0 },
  make: (w) =>
    commands({
      0x260f: {
        ms: 30,
        answer: (args) =>
          [...word(0x8000), ...word(0x6666)].every((v, i) => args[i] === v) && args.length === 6 ? word(w.raw!) : null,
      },
    }),
};
