import { read, work } from "./steps";
import type { Device } from "./types";

/** Four by four keys: a bit for each, and the lowest pressed key by its number from 1, 0 for none. */
const LOWEST = Array.from({ length: 15 }, (_, i) => i + 1).reduceRight(
  (rest, n) => `(bits & ${2 ** (n - 1)}) != 0 ? ${n} : ${rest}`,
  "bits != 0 ? 16 : 0",
);
export const keypad: Device = {
  id: "module/keypad-4x4",
  over: { kind: "matrix", rows: ["R1", "R2", "R3", "R4"], columns: ["C1", "C2", "C3", "C4"] },
  begin: [work("last", "0"), work("key", "0")],
  read: [
    read(2),
    work("bits", "u16le(0)"),
    // A key counts when two looks agree: contacts bounce.
    work("key", `bits == last ? ${LOWEST} : key`),
    work("last", "bits"),
  ],
  every: 20,
  out: [{ name: "key", word: "key", unit: "", digits: 0, room: [0, 16] }],
  proof: { kind: "watch", act: "press any key and hold", by: 1, steady: true },
};
