import { number } from "./numbers";
import { each, wait, work, write } from "./steps";
import { letters } from "./text-proof";
import type { Device, Step } from "./types";

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
interface Glass {
  columns: number;
  rows: number;
}
const text: Glass = { columns: 16, rows: 2 };
/** The second row begins at its place 64; of four, the third and fourth go on where the first and second end. */
const writeText = (put: Put, { columns, rows }: Glass): Step[] => [
  each(
    "r",
    rows,
    work("to", rows === 2 ? "0x80 + 64 * r" : `0x80 + 64 * (r & 1) + ${columns} * (r >> 1)`),
    ...put(false, "to"),
    each("i", columns, work("ch", `char(${columns} * r + i)`), ...put(true, "ch")),
  ),
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
const glassI2c = (id: string, glass: Glass): Device => ({
  id,
  begin: beginText(halfI2c, putI2c),
  read: writeText(putI2c, glass),
  every: 200,
  out: [],
  takes: number(8),
  text: glass,
  proof: letters,
});
export const lcdI2c = glassI2c("module/lcd1602-i2c", text);
export const lcd2004 = glassI2c("module/lcd2004-i2c", { columns: 20, rows: 4 });

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
  read: writeText(putPins, text),
  every: 200,
  out: [],
  takes: number(8),
  text,
  proof: letters,
};
