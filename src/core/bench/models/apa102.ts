import { onSpi } from "./on-spi";
import type { As, Model } from "./types";

const count = (as: As) => Number(as.options?.pixels ?? 1);
const cap = (as: As) => Number(as.options?.brightness ?? 1);

/**
 * Lights one behind the other: after 32 zeros each takes the first four bytes that reach it and hands on the rest, half a clock
 * later. So many are lit from the first on, all alike, and none beyond the current that was planned for.
 */
export const apa102: Model = {
  part: "module/apa102-strip",
  worlds: [{}],
  within: { lit: 0 },
  wants: (as) => [0, 1, 3, count(as), count(as) - 1, 0, 2].map((v) => [v, { lit: v }] as const),
  make(_w, as) {
    const n = count(as);
    // They come up with anything.
    let lights = Array.from({ length: n }, () => [0xff, 9, 200, 30]);
    /** What came since the first light took its first byte. */
    let came: number[] = [];
    let zeros = 0;
    /** So many zeros came that the next byte of a light begins anew. */
    let starts = false;
    const hear = (byte: number) => {
      const data = came.length > 0 && came.length < 4 * n;
      if (!data && starts && byte !== 0) {
        came = [byte];
        zeros = 0;
        starts = false;
      } else if (came.length) came.push(byte);
      if (!data) zeros = byte === 0 ? zeros + 1 : 0;
      if (zeros >= 4) starts = true;
      lights = lights.map((old, i) => {
        const frame = came.slice(4 * i, 4 * i + 4);
        const clocked = 8 * came.length >= 32 * (i + 1) + Math.ceil(i / 2);
        return frame.length === 4 && clocked && (frame[0]! & 0xe0) === 0xe0 ? frame : old;
      });
    };
    return onSpi(
      { reply: () => 0, end: (heard) => heard.forEach(hear) },
      {
        is: () => {
          const shares = lights.map(([b, blue, green, red]) => ((b! & 31) / 31) * ((blue! + green! + red!) / 765));
          const one = String(as.options?.colour ?? "white") === "one";
          const lit = shares.findIndex((s) => s === 0);
          const k = lit < 0 ? n : lit;
          // One colour of three is planned for as a third of the whole.
          const most = cap(as) / (one ? 3 : 1) + 1e-9;
          const well =
            shares.slice(k).every((s) => s === 0) &&
            shares.every((s) => s <= most) &&
            shares.slice(0, k).every((s) => s === shares[0] && s > most / 2);
          return { lit: well ? k : NaN };
        },
      },
    );
  },
};
