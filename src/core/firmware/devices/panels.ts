import { number } from "./numbers";
import { again, each, pin, wait, work, write } from "./steps";
import { letters } from "./text-proof";
import type { Device, Step } from "./types";

/** Told what follows it: the line beside the bus says whether a byte is a command or goes with one. */
const command = (code: number, ...more: (number | string)[]): Step[] => [
  pin("DC", 0),
  write(code),
  ...(more.length ? [pin("DC", 1), write(...more)] : []),
];

/** Letters are five columns of eight dots, as on the small glasses; here a dot is a block of so many. What is between them stays dark. */
const text = { columns: 21, rows: 8 };
const DOTS = 8;
const HALF = DOTS / 2;
/** So long a chip of a hundred megahertz takes at most, in Python too, ms. */
const QUICK_MS = 6000;

interface Panel {
  id: string;
  /** Dots of the glass, and of the controller's memory. */
  width: number;
  height: number;
  memory: [number, number];
  /** A dot of a letter: so wide, so high. */
  block: [number, number];
  /** Dots of its memory that are cleared in one turn. */
  piece: number;
  /** What it is told between waking and clearing. */
  set: readonly Step[];
  /** How long bring-up shows each number on a slow board, ms: as long as that takes to draw all of it. */
  ms: number;
}

/**
 * Colour displays whose controllers share their commands: wake, sixteen bits a dot, a window, then its dots. Letters are white on
 * black, which is the same whatever order the glass has its colours in.
 */
function panel({ id, width, height, memory: [w, h], block: [wide, high], piece, set, ms }: Panel): Device {
  const letter = 5 * wide + 1;
  const pitch = Math.floor(height / text.rows);
  const left = Math.floor((width - text.columns * letter) / 2);
  const top = Math.floor((pitch - DOTS * high) / 2);
  // Half a column a turn: more would hold the others up on a slow board.
  const half: Step[] = [
    work("b", `glyph(ch, x) >> ${HALF} * h`),
    work("x0", `${left} + ${letter} * i + ${wide} * x`),
    work("x1", `x0 + ${wide - 1}`),
    work("y0", `${top} + ${pitch} * r + ${HALF * high} * h`),
    work("y1", `y0 + ${HALF * high - 1}`),
    ...command(0x2a, "x0 >> 8", "x0 & 255", "x1 >> 8", "x1 & 255"),
    ...command(0x2b, "y0 >> 8", "y0 & 255", "y1 >> 8", "y1 & 255"),
    ...command(0x2c),
    pin("DC", 1),
    ...Array.from({ length: HALF }, (_, k) => k).flatMap((k) => [
      work("d", `(b >> ${k} & 1) * 255`),
      again(wide * high, "d", "d"),
    ]),
  ];
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
      // The whole memory, in pieces of rows: what stood in it is random. After a reset all of it is the window, which goes on from
      // message to message.
      ...command(0x2c),
      each("r", (w * h) / piece, pin("DC", 1), again(piece, 0, 0)),
      ...command(0x29),
    ],
    read: [
      each(
        "r",
        text.rows,
        each("i", text.columns, work("ch", `char(${text.columns} * r + i)`), each("x", 5, each("h", 2, ...half))),
      ),
    ],
    every: 100,
    out: [],
    takes: number(8),
    text,
    // The first one comes after the whole glass was cleared, and each is drawn half a column at a time.
    proof: { ...letters, ms, quick_ms: Math.min(ms, QUICK_MS) },
  };
}

export const st7735 = panel({
  id: "module/st7735",
  width: 128,
  height: 160,
  // Glasses of 128 by 160 sit at different places of it.
  memory: [132, 162],
  block: [1, 2],
  piece: 66,
  ms: 4500,
  set: command(0x3a, 0x05),
});
export const st7789 = panel({
  id: "module/st7789",
  width: 240,
  height: 240,
  memory: [240, 320],
  block: [2, 3],
  piece: 60,
  ms: 14_000,
  // Glasses of this kind are dark where a bit is set: turned over.
  set: [...command(0x3a, 0x55), ...command(0x21)],
});
export const ili9341 = panel({
  id: "module/ili9341",
  width: 240,
  height: 320,
  memory: [240, 320],
  block: [2, 3],
  piece: 60,
  ms: 14_000,
  set: command(0x3a, 0x55),
});
