import { number, shows } from "./numbers";
import { again, each, pin, wait, work, write } from "./steps";
import type { Device, Step } from "./types";

/** Told what follows it: the line beside the bus says whether a byte is a command or goes with one. */
const command = (code: number, ...more: (number | string)[]): Step[] => [
  pin("DC", 0),
  write(code),
  ...(more.length ? [pin("DC", 1), write(...more)] : []),
];

/**
 * Digits from the right, one a round `i`: `s` are its segments, a the lowest bit. `v` is what is left of the number, `m` whether a
 * minus is still to come.
 */
const digits = (places: number, ...draw: Step[]): Step[] => [
  work("v", "abs(want)"),
  work("m", "want < 0"),
  each(
    "i",
    places,
    work("s", "seg7(i == 0 | v > 0 ? v % 10 : m ? 10 : 11)"),
    work("m", "v == 0 & i > 0 ? 0 : m"),
    work("v", "v / 10"),
    ...draw,
  ),
];

/** Bars of a digit on a grid of 5 by 9: where the bars a to g begin and how wide they are, four bits each, a the lowest. */
const BAR_X = 0x1001441;
const BAR_Y = 0x4158510;
const BAR_W = 0x3113113;
const bar = (table: number) => `(${table} >> 4 * k & 15)`;

interface Panel {
  id: string;
  /** Dots of the glass, and of the controller's memory. */
  width: number;
  height: number;
  memory: [number, number];
  /** Dots of a step of a digit's grid. */
  unit: number;
  places: number;
  /** What it is told between waking and clearing. */
  set: readonly Step[];
  /** How long bring-up shows each number, ms: the first comes after the whole glass was cleared. */
  ms: number;
}

/**
 * Colour displays whose controllers share their commands: wake, sixteen bits a dot, a window, then its dots. Digits are bars, white
 * on black, which is the same whatever order the glass has its colours in.
 */
function panel({ id, width, height, memory: [w, h], unit: u, places, set, ms }: Panel): Device {
  const left = Math.floor((width - (6 * places - 1) * u) / 2);
  const top = Math.floor((height - 9 * u) / 2);
  return {
    id,
    over: { kind: "spi", picture: 2 * w * h },
    begin: [
      pin("RST", 0),
      wait(1),
      pin("RST", 1),
      wait(120),
      ...command(0x11),
      wait(120),
      ...set,
      // The whole memory, in halves of rows: what stood in it is random. After a reset all of it is the window, which goes on from
      // message to message.
      ...command(0x2c),
      each("r", 2 * h, pin("DC", 1), again(w / 2, 0, 0)),
      ...command(0x29),
    ],
    read: digits(
      places,
      each(
        "k",
        7,
        work("x", `${left + 6 * u * (places - 1)} - ${6 * u} * i + ${u} * ${bar(BAR_X)}`),
        work("y", `${top} + ${u} * ${bar(BAR_Y)}`),
        work("n", bar(BAR_W)),
        work("e", `x + ${u} * n - 1`),
        work("g", `y + ${u} * (4 - n) - 1`),
        ...command(0x2a, "x >> 8", "x & 255", "e >> 8", "e & 255"),
        ...command(0x2b, "y >> 8", "y & 255", "g >> 8", "g & 255"),
        ...command(0x2c),
        pin("DC", 1),
        work("d", "(s >> k & 1) * 255"),
        again(3 * u * u, "d", "d"),
      ),
    ),
    every: 100,
    out: [],
    takes: number(places),
    proof: shows([10 ** places - 10 ** (places - 2), -42, 0], ms),
  };
}

export const st7735 = panel({
  id: "module/st7735",
  width: 128,
  height: 160,
  // Glasses of 128 by 160 sit at different places of it.
  memory: [132, 162],
  unit: 4,
  places: 5,
  set: command(0x3a, 0x05),
  ms: 2500,
});
export const st7789 = panel({
  id: "module/st7789",
  width: 240,
  height: 240,
  memory: [240, 320],
  unit: 7,
  places: 5,
  // Glasses of this kind are dark where a bit is set: turned over.
  set: [...command(0x3a, 0x55), ...command(0x21)],
  ms: 4500,
});
export const ili9341 = panel({
  id: "module/ili9341",
  width: 240,
  height: 320,
  memory: [240, 320],
  unit: 7,
  places: 5,
  set: command(0x3a, 0x55),
  ms: 4500,
});
