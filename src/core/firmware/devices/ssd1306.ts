import { number } from "./numbers";
import { again, each, pin, wait, work, write } from "./steps";
import { letters } from "./text-proof";
import type { Device, Step } from "./types";

/** What it is told before it shows anything: clock, rows, no shift; its own pump; columns then pages; turned to its pins; contrast; what is in memory, not turned over. */
const SET = [
  [0xd5, 0x80, 0xa8, 0x3f, 0xd3, 0x00, 0x40, 0x8d, 0x14, 0x20, 0x00, 0xa1, 0xc8, 0xda, 0x12],
  [0x81, 0x7f, 0xd9, 0xf1, 0xdb, 0x40, 0xa4, 0xa6],
];
const text = { columns: 21, rows: 8 };
const LETTER = [0, 1, 2, 3, 4].map((x) => `glyph(ch, ${x})`);

/** Letters of five columns and a blank one, each row a page. */
const rows = (page: (r: string) => Step[], letter: (columns: string[]) => Step[]): Step[] => [
  each(
    "r",
    text.rows,
    ...page("r"),
    each("i", text.columns, work("ch", `char(${text.columns} * r + i)`), ...letter(LETTER)),
  ),
];
const same = { every: 100, out: [], takes: number(8), text, proof: letters } satisfies Partial<Device>;

/** By SPI a line beside the bus tells commands from dots. */
export const ssd1306Spi: Device = {
  id: "module/ssd1306-spi",
  over: { kind: "spi" },
  begin: [
    pin("RST", 0),
    wait(1),
    pin("RST", 1),
    wait(1),
    pin("DC", 0),
    ...SET.map((list) => write(...list)),
    pin("DC", 1),
    each("p", 8, again(128, 0)),
    pin("DC", 0),
    write(0xaf),
  ],
  read: rows(
    (r) => [pin("DC", 0), write(0x21, 0, 125, 0x22, r, r), pin("DC", 1)],
    (columns) => [write(...columns, 0)],
  ),
  ...same,
};

/** By a two-wire bus the first byte of a message tells them apart. */
export const ssd1306I2c: Device = {
  id: "module/ssd1306-i2c",
  begin: [
    // Dark while it is set: it may be on from another program.
    write(0x00, 0xae),
    ...SET.map((list) => write(0x00, ...list)),
    write(0x00, 0x21, 0, 127, 0x22, 0, 7),
    each("p", 64, write(0x40, ...Array<number>(16).fill(0))),
    write(0x00, 0xaf),
  ],
  read: rows(
    (r) => [write(0x00, 0x21, 0, 125, 0x22, r, r)],
    (columns) => [write(0x40, ...columns, 0)],
  ),
  ...same,
};
