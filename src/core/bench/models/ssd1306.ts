import { BELOW, LETTERS, NUMBERS } from "./letters";
import { onSpi } from "./on-spi";
import { told } from "./panels";
import type { Model } from "./types";

/** How many bytes go with a command of the SSD1306. */
const MORE = new Map([
  [0x20, 1],
  [0x21, 2],
  [0x22, 2],
  [0x81, 1],
  [0x8d, 1],
  [0xa8, 1],
  [0xd3, 1],
  [0xd5, 1],
  [0xd9, 1],
  [0xda, 1],
  [0xdb, 1],
]);

/** The chip: 128 columns of 8 pages; a byte is eight dots, the highest the lowest bit. `left`: what it was told by another program. */
function chip(left: readonly number[]) {
  // What stands in it is random.
  const pages = Uint8Array.from({ length: 1024 }, (_, i) => (i * 151) & 255);
  let set = new Map<number, readonly number[]>();
  let flags = new Set<number>();
  let pending: { c: number; list: number[] } | null = null;
  let at = [0, 0];
  let flashed = false;
  let clean = false;
  const range = (c: number) => (set.get(c) as [number, number] | undefined) ?? [0, c === 0x21 ? 127 : 7];
  const command = (c: number) => {
    if (pending) {
      // Seven bits of a column, three of a page.
      const mask = pending.c === 0x21 ? 0x7f : pending.c === 0x22 ? 7 : 0xff;
      pending.list.push(c & mask);
      if (pending.list.length < MORE.get(pending.c)!) return;
      set.set(pending.c, pending.list);
      if (pending.c === 0x21) at = [pending.list[0]!, at[1]!];
      if (pending.c === 0x22) at = [at[0]!, pending.list[0]!];
      pending = null;
      return;
    }
    if (MORE.has(c)) pending = { c, list: [] };
    // Of two opposites the last counts.
    for (const pair of [
      [0xae, 0xaf],
      [0xa0, 0xa1],
      [0xc0, 0xc8],
      [0xa4, 0xa5],
      [0xa6, 0xa7],
    ])
      if (pair.includes(c)) for (const x of pair) if (x !== c) flags.delete(x);
    if (c >= 0x40 && c < 0x80) for (let x = 0x40; x < 0x80; x++) flags.delete(x);
    flags.add(c);
    if (!flags.has(0xaf)) return;
    clean ||= pages.every((v) => v === 0);
    flashed ||= !clean;
  };
  left.forEach(command);
  flashed = false;
  const row = (r: number) =>
    Array.from({ length: 21 }, (_, i) => {
      const from = r * 128 + 6 * i;
      const hex = [...pages.slice(from, from + 5)].map((v) => v.toString(16).padStart(2, "0")).join("");
      return pages[from + 5] === 0 ? (LETTERS.get(hex) ?? "?") : "?";
    }).join("");
  return {
    command,
    data(v: number) {
      const [x, y] = at as [number, number];
      pages[y * 128 + x] = v;
      const [x0, x1] = range(0x21);
      const [y0, y1] = range(0x22);
      at = x === x1 ? [x0, y === y1 ? y0 : (y + 1) & 7] : [(x + 1) & 127, y];
    },
    reset() {
      set = new Map();
      flags = new Set();
      pending = null;
      at = [0, 0];
    },
    is() {
      const is = (c: number, ...v: number[]) => JSON.stringify(set.get(c)) === JSON.stringify(v);
      const well =
        !flashed &&
        flags.has(0xaf) &&
        flags.has(0x40) &&
        // Turned to its pins both ways, so that it can be read; not all lit, not turned over.
        flags.has(0xa1) &&
        flags.has(0xc8) &&
        !flags.has(0xa5) &&
        !flags.has(0xa7) &&
        is(0x8d, 0x14) &&
        is(0x20, 0) &&
        is(0xa8, 63) &&
        is(0xd3, 0) &&
        is(0xda, 0x12) &&
        is(0xd5, 0x80) &&
        is(0xd9, 0xf1) &&
        is(0xdb, 0x40) &&
        is(0x81, 0x7f);
      const first = row(0);
      const edge = [0, 1, 2, 3, 4, 5, 6, 7].some((p) => pages[p * 128 + 126]! || pages[p * 128 + 127]!);
      const number = /^-?\d+ *$/.test(first) && !first.startsWith("-0") ? Number(first) : NaN;
      return {
        shows: well && !edge ? number : NaN,
        letters: Number(BELOW.every((text, i) => row(i + 1) === text)),
      };
    },
  };
}

const glass = {
  worlds: [{}],
  within: { shows: 0, letters: 0 },
  wants: () => NUMBERS.map((v) => [v, { shows: v, letters: 1 }] as const),
} satisfies Partial<Model>;

/** By SPI, dead for a while after its reset. */
export const ssd1306Spi: Model = {
  part: "module/ssd1306-spi",
  ...glass,
  make: () => {
    const { command, data, reset, is } = chip([]);
    const out = told({ resets_ms: 0.003, reset, command, data });
    return onSpi(out.spi, { pin: out.pin, is });
  },
};

/** By a two-wire bus, on and set otherwise by another program: nothing resets it. */
export const ssd1306I2c: Model = {
  part: "module/ssd1306-i2c",
  ...glass,
  make: () => {
    const { command, data, is } = chip([
      ...[0xd5, 0xf0, 0xa8, 0x1f, 0xd3, 0x08, 0x45, 0x8d, 0x10, 0x20, 0x02, 0xa0, 0xc0, 0xda, 0x02, 0x81, 0xff],
      ...[0xd9, 0x22, 0xdb, 0x20, 0xa5, 0xa7, 0x21, 5, 90, 0x22, 2, 3, 0xaf],
    ]);
    return {
      write(bytes) {
        const [control, ...list] = bytes;
        if (control === 0x00) list.forEach(command);
        else if (control === 0x40) list.forEach(data);
        return true;
      },
      read: () => null,
      is,
    };
  },
};
