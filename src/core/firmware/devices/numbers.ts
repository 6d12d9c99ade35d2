import { wait, work, write } from "./steps";
import type { Device, DeviceProof, Step, Takes } from "./types";

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

/** HD44780 by four bits: how a byte goes out in two halves is the link's business, the commands are the same. */
type Put = (data: boolean, byte: number | string) => Step[];
/** Three times eight bits, then four; two lines; no cursor; clear; write to the right. */
const beginText = (half: (bits: number) => Step[], put: Put): Step[] => [
  wait(50),
  ...half(0x3),
  wait(5),
  ...half(0x3),
  wait(1),
  ...half(0x3),
  wait(1),
  ...half(0x2),
  wait(1),
  ...put(false, 0x28),
  ...put(false, 0x08),
  ...put(false, 0x01),
  wait(2),
  ...put(false, 0x06),
  ...put(false, 0x0c),
];
const PLACES = [7, 6, 5, 4, 3, 2, 1, 0];
/** The code of what stands at a place: digits from 0x30, a minus, a blank. */
const letter = (i: number) => `(${placeOf(i)}) < 10 ? 0x30 + (${placeOf(i)}) : (${placeOf(i)}) == 10 ? 0x2D : 0x20`;
const writeNumber = (put: Put): Step[] => [
  work("v", "abs(want)"),
  ...put(false, 0x80),
  ...PLACES.flatMap((i) => [work("ch", letter(i)), ...put(true, "ch")]),
];

/** Behind a PCF8574: bit 0 register, bit 2 enable, bit 3 light, bits 4 to 7 data. A byte on the bus takes 90 us, a character 37. */
const LIGHT = 8;
const E = 4;
const halfI2c = (bits: number): Step[] => [write((bits << 4) | LIGHT | E, (bits << 4) | LIGHT)];
const putI2c: Put = (data, byte) => {
  const rs = data ? 1 : 0;
  const [hi, lo] =
    typeof byte === "number" ? [byte & 0xf0, (byte << 4) & 0xf0] : [`(${byte} & 0xF0)`, `(${byte} << 4 & 0xF0)`];
  const one = (v: number | string, more: number) => (typeof v === "number" ? v | more : `${v} | ${more}`);
  return [write(one(hi, rs | LIGHT | E), one(hi, rs | LIGHT), one(lo, rs | LIGHT | E), one(lo, rs | LIGHT))];
};
export const lcdI2c: Device = {
  id: "module/lcd1602-i2c",
  begin: beginText(halfI2c, putI2c),
  read: writeNumber(putI2c),
  every: 200,
  out: [],
  takes: number(8),
  proof: shows([12_345_678, -42, 0]),
};

/** By plain pins: data first, then a pulse of the enable. */
const LINES = ["RS", "E", "D4", "D5", "D6", "D7"];
const bitsOf = (rs: number, e: number, v: number | string, low: number) =>
  write(rs, e, ...[0, 1, 2, 3].map((b) => (typeof v === "number" ? (v >> (low + b)) & 1 : `${v} >> ${low + b} & 1`)));
const nibble = (rs: number, v: number | string, low: number) => [bitsOf(rs, 1, v, low), bitsOf(rs, 0, v, low)];
const putPins: Put = (data, byte) => {
  const rs = data ? 1 : 0;
  // 37 us until it has taken a byte.
  return [...nibble(rs, byte, 4), ...nibble(rs, byte, 0), wait(1)];
};
export const lcdParallel: Device = {
  id: "module/lcd1602-parallel",
  over: { kind: "pins", out: LINES.map((pin) => ({ pin, as: "level" })) },
  begin: beginText((bits) => nibble(0, bits, 0), putPins),
  read: writeNumber(putPins),
  every: 200,
  out: [],
  takes: number(8),
  proof: shows([12_345_678, -42, 0]),
};
