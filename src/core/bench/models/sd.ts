import { onSpi } from "./on-spi";
import type { Model } from "./types";

/** Which cards there are: 1 up to 2 GB, 2 more than that. It asks for the checksum until it is in the mode for this bus. */
const card = (part: string): Model => ({
  part,
  worlds: [{ card: 2 }, { card: 1 }],
  within: { card: 0 },
  make(w) {
    const large = w.card === 2;
    /** Not called yet, called and not awake, awake. */
    let state: "native" | "idle" | "ready" = "native";
    let application = false;
    let first: number | null = null;
    let answer: number[] = [];
    let spoilt = false;
    const argument = (b: readonly number[]) => ((b[1]! << 24) | (b[2]! << 16) | (b[3]! << 8) | b[4]!) >>> 0;
    const r1 = (illegal = false) => (state === "idle" ? 1 : 0) | (illegal ? 4 : 0);
    const does = (b: readonly number[], now: number): number[] => {
      // Its supply has only just come.
      if (now < 1) return [];
      const command = b[0]! & 0x3f;
      const was = application;
      application = false;
      if (state === "native") {
        if (command !== 0 || b[5] !== 0x95 || argument(b) !== 0) return [];
        state = "idle";
        return [r1()];
      }
      if (command === 8) {
        if (!large) return [r1(true)];
        return b[5] === 0x87 ? [r1(), 0, 0, b[3]! & 15, b[4]!] : [r1() | 8];
      }
      if (command === 55) {
        application = true;
        return [r1()];
      }
      if (command === 41 && was) {
        // A large card wakes only for who says that it knows large ones.
        first ??= now;
        if (now - first > 400 && (!large || argument(b) & 0x40000000)) state = "ready";
        return [r1()];
      }
      if (command === 58)
        return [r1(), (state === "ready" ? 0x80 : 0) | (large && state === "ready" ? 0x40 : 0), 0xff, 0x80, 0];
      return [r1(true)];
    };
    return onSpi({
      // So many clocks before it is selected; what is not a command must be ones.
      wakes: 74,
      reply(heard, now) {
        const n = heard.length;
        if (n < 6) return 0xff;
        if (n === 6) {
          spoilt = (heard[0]! & 0xc0) !== 0x40 || (heard[5]! & 1) !== 1;
          answer = spoilt ? [] : [0xff, ...does(heard, now)];
        } else if (heard[n - 1] !== 0xff) answer = [];
        return answer.shift() ?? 0xff;
      },
      end: () => {
        answer = [];
      },
    });
  },
});

export const sd3v3 = card("module/sd-3v3");
export const sdShifted = card("module/sd-shifted");
