import { work, write } from "./steps";
import { placeOf } from "./numbers";
import type { Device, DeviceKind, Step } from "./types";

/** Registers: a digit or row is its number from 1; test, shutdown, how many are scanned, decoding, brightness. */
const TEST = 0x0f;
const ON = 0x0c;
const SCAN = 0x0b;
const DECODE = 0x09;
const BRIGHT = 0x0a;

/** The same to all modules of a chain in one message. */
const all = (n: number, register: number, value: number | string): Step =>
  write(...Array.from({ length: n }, () => [register, value]).flat());
/** To the module beside the board alone: the others hear a register that does nothing. */
const first = (n: number, register: number, value: string): Step =>
  write(...Array<number>(2 * (n - 1)).fill(0), register, value);

const start = (n: number, decode: number): Step[] => [
  all(n, TEST, 0),
  all(n, SCAN, 7),
  all(n, DECODE, decode),
  all(n, BRIGHT, 4),
];
/** What stands in the rows after power-on is random: it is dark before it is switched on. */
const dark = (n: number, code: number): Step[] => [1, 2, 3, 4, 5, 6, 7, 8].map((row) => all(n, row, code));

const BLANK = 15;
const PLACES = [0, 1, 2, 3, 4, 5, 6, 7];

/** MAX7219 with eight digits: a number, right-hand, a minus before it. */
export const max7219Digits: DeviceKind = {
  id: "module/max7219-digits",
  cases: [{ chain: 1 }, { chain: 3 }],
  of: ({ chain }): Device => ({
    id: "module/max7219-digits",
    over: { kind: "spi" },
    begin: [...start(chain, 0xff), ...dark(chain, BLANK), all(chain, ON, 1)],
    read: [work("v", "abs(want)"), ...PLACES.map((i) => first(chain, i + 1, placeOf(i, BLANK)))],
    every: 100,
    out: [],
    takes: { word: "number", unit: "", digits: 0, range: [-9_999_999, 99_999_999], rest: 0 },
    proof: { kind: "seen", show: [12_345_678, -42, 0], question: "Did it show 12345678, then -42, then 0?" },
  }),
};

/** MAX7219 with eight by eight lights: a bar over all modules, as many columns as it is told. */
export const max7219Matrix: DeviceKind = {
  id: "module/max7219-matrix",
  cases: [{ chain: 1 }, { chain: 4 }],
  of: ({ chain }): Device => ({
    id: "module/max7219-matrix",
    over: { kind: "spi" },
    begin: [...start(chain, 0), ...dark(chain, 0), all(chain, ON, 1)],
    read: [1, 2, 3, 4, 5, 6, 7, 8].map((row) =>
      write(
        ...Array.from({ length: chain }, (_, i) => {
          // What goes out first ends in the module that is furthest away.
          const before = 8 * (chain - 1 - i);
          return [row, `want >= ${before + 8} ? 255 : want > ${before} ? 0xFF00 >> want - ${before} & 255 : 0`];
        }).flat(),
      ),
    ),
    every: 100,
    out: [],
    takes: { word: "columns", unit: "", digits: 0, range: [0, 8 * chain], rest: 0, on: 8 * chain },
    proof: {
      kind: "seen",
      show: [4 * chain, 8 * chain, 0],
      question: "Was half of it lit, then all, then nothing?",
    },
  }),
};
