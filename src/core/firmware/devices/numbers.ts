import { work, write } from "./steps";
import type { Device, DeviceProof, Takes } from "./types";

/** A number for a display with so many places, its minus among them. */
export const number = (places: number): Takes => ({
  word: "number",
  unit: "",
  digits: 0,
  range: [-(10 ** (places - 1)) + 1, 10 ** places - 1],
  rest: 0,
});
export const shows = (list: readonly number[], ms?: number): DeviceProof => ({
  kind: "seen",
  show: list,
  question: `Did it show ${list.slice(0, -1).join(", then ")}, then ${list.at(-1)}?`,
  ...(ms !== undefined && { ms }),
});
const BLANK = 11;
/** What stands at a place from the right: a digit, 10 for the minus, `blank` for nothing. `v` is the number without its sign. */
export const placeOf = (i: number, blank = BLANK): string =>
  i === 0
    ? "v % 10"
    : `v >= ${10 ** i} ? v / ${10 ** i} % 10 : want < 0 & ${i === 1 ? "v < 10" : `v >= ${10 ** (i - 1)}`} ? 10 : ${blank}`;

/** HT16K33 with four digits and a colon between them: clock on, display on, brightness; each digit is two bytes. */
export const ht16k33: Device = {
  id: "module/ht16k33-digits",
  begin: [write(0x21), write(0x00, ...Array<number>(16).fill(0)), write(0x81), write(0xe7)],
  read: [
    work("v", "abs(want)"),
    write(
      0x00,
      `seg7(${placeOf(3)})`,
      0,
      `seg7(${placeOf(2)})`,
      0,
      0,
      0,
      `seg7(${placeOf(1)})`,
      0,
      `seg7(${placeOf(0)})`,
      0,
    ),
  ],
  every: 100,
  out: [],
  takes: number(4),
  proof: shows([1234, -42, 0]),
};
