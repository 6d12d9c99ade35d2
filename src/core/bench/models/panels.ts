import { onSpi } from "./on-spi";
import type { Model } from "./types";

/** Bars of a digit as a person tells them apart: top, upper right, lower right, bottom, lower left, upper left, middle. */
const SHAPES = new Map(
  ["1111110", "0110000", "1101101", "1111001", "0110011", "1011011", "1011111", "1110000", "1111111", "1111011"].map(
    (bits, i) => [bits, String(i)] as const,
  ),
)
  .set("0000001", "-")
  .set("0000000", " ");

interface Rect {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** What is to be read on a glass: all lit dots must belong to whole bars; NaN when no number stands there. */
function numberOn(lit: (x: number, y: number) => boolean, w: number, h: number, places: readonly (readonly Rect[])[]) {
  let bars = 0;
  const text = places
    .map((rects) => {
      const bits = rects.map((r) => {
        let n = 0;
        for (let y = r.y; y < r.y + r.h; y++) for (let x = r.x; x < r.x + r.w; x++) if (lit(x, y)) n++;
        bars += n;
        return n === 0 ? "0" : n === r.w * r.h ? "1" : "?";
      });
      return SHAPES.get(bits.join("")) ?? "?";
    })
    .join("");
  let all = 0;
  for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) if (lit(x, y)) all++;
  return all === bars && /^ *-?\d+$/.test(text) && !/-0/.test(text) ? Number(text) : NaN;
}

/** Numbers of all lengths, both signs, with zeros inside. */
const numbers = (places: number) => {
  const most = 10 ** places - 1;
  return [
    0,
    7,
    -7,
    12,
    -42,
    Math.floor(0.1234567 * 10 ** places),
    -(10 ** (places - 1)) + 1,
    most,
    10,
    -100,
    8056,
  ].filter((v) => v <= most && v >= -(10 ** (places - 1)) + 1);
};

/** Bytes on SPI as commands and what goes with them, by the line that tells them apart; dead for a while after a reset. */
function told(o: {
  resets_ms: number;
  command(c: number, now: number): void;
  data(v: number, now: number): void;
  reset(): void;
}) {
  let data = false;
  /** Since when it is held in reset. */
  let low: number | null = null;
  /** Since when it is out of reset; null: it never was in it, and what it does nobody knows. */
  let out: number | null = null;
  return {
    spi: {
      reply: () => 0,
      end(heard: readonly number[], now: number) {
        if (out === null || low !== null || now - out < o.resets_ms) return;
        for (const v of heard) {
          if (data) o.data(v, now);
          else o.command(v, now);
        }
      },
    },
    pin(label: string, level: 0 | 1, now: number) {
      if (label === "DC") data = level === 1;
      if (label !== "RST") return;
      if (level === 0) low ??= now;
      else if (low !== null) {
        // Shorter than 10 us counts as noise.
        if (now - low >= 0.01) {
          o.reset();
          out = now;
        }
        low = null;
      }
    },
  };
}

interface Glass {
  part: string;
  width: number;
  height: number;
  memory: [number, number];
  unit: number;
  /** It shows dark what is lit unless it is turned over. */
  turned: boolean;
  settles: number;
}

/** Controllers of colour glasses: asleep after reset for 120 ms, then woken, 5 ms until the next command; windows and dots. */
function colour({ part, width, height, memory: [mw, mh], unit: u, turned, settles }: Glass): Model {
  const places = Array.from({ length: 5 }, (_, i) => {
    const x0 = Math.floor((width - 29 * u) / 2) + 6 * u * i;
    const y0 = Math.floor((height - 9 * u) / 2);
    const at = (x: number, y: number, w: number, h: number): Rect => ({
      x: x0 + x * u,
      y: y0 + y * u,
      w: w * u,
      h: h * u,
    });
    return [
      at(1, 0, 3, 1),
      at(4, 1, 1, 3),
      at(4, 5, 1, 3),
      at(1, 8, 3, 1),
      at(0, 5, 1, 3),
      at(0, 1, 1, 3),
      at(1, 4, 3, 1),
    ];
  });
  return {
    part,
    worlds: [{}],
    within: { shows: 0 },
    settles,
    wants: () => numbers(5).map((v) => [v, { shows: v }] as const),
    make: () => {
      // Another program has left it on, with a picture in it.
      const dots = Uint16Array.from({ length: mw * mh }, (_, i) => (i * 40_503) & 0xffff);
      let awake: number | null = null;
      let on = false;
      let inverted = false;
      let bits = 0x66;
      let now0: number[] = [];
      let last = 0;
      let flashed = false;
      let at = [0, 0];
      let window = { x: [0, mw - 1], y: [0, mh - 1] };
      const reset = () => {
        awake = null;
        on = inverted = false;
        bits = 0x66;
        last = 0;
        window = { x: [0, mw - 1], y: [0, mh - 1] };
      };
      const dot = (v: number) => {
        const [x, y] = at as [number, number];
        if (x < mw && y < mh) dots[y * mw + x] = v;
        at = x < window.x[1]! ? [x + 1, y] : [window.x[0]!, y < window.y[1]! ? y + 1 : window.y[0]!];
      };
      const out = told({
        resets_ms: 120,
        reset,
        command(c, now) {
          // It is still waking up.
          if (awake !== null && now - awake < 5) return;
          last = c;
          now0 = [];
          if (c === 0x11) awake = now;
          if (c === 0x10) awake = null;
          if (c === 0x20 || c === 0x21) inverted = c === 0x21;
          if (c === 0x28) on = false;
          if (c === 0x29) {
            on = true;
            flashed ||= dots.some((d) => d !== 0);
          }
          if (c === 0x2c) at = [window.x[0]!, window.y[0]!];
        },
        data(v, now) {
          if (awake !== null && now - awake < 5) return;
          now0.push(v);
          if (last === 0x2c) {
            if (now0.length === ((bits & 7) === 5 ? 2 : 3)) {
              dot((now0[0]! << 8) | now0[1]!);
              now0 = [];
            }
          } else if (last === 0x3a) bits = v;
          else if ((last === 0x2a || last === 0x2b) && now0.length === 4) {
            const [a, b, c, d] = now0 as [number, number, number, number];
            window[last === 0x2a ? "x" : "y"] = [(a << 8) | b, (c << 8) | d];
          }
        },
      });
      const white = turned ? (v: number) => (inverted ? v : 0xffff - v) : (v: number) => (inverted ? 0xffff - v : v);
      return onSpi(out.spi, {
        pin: out.pin,
        is: () => {
          const lit = (x: number, y: number) => white(dots[y * mw + x]!) === 0xffff;
          const plain = dots.every((d) => d === 0 || d === 0xffff);
          const shows = plain && on && awake !== null && !flashed ? numberOn(lit, mw, mh, places) : NaN;
          return { shows };
        },
      });
    },
  };
}

export const st7735 = colour({
  part: "module/st7735",
  width: 128,
  height: 160,
  memory: [132, 162],
  unit: 4,
  turned: false,
  settles: 1000,
});
export const st7789 = colour({
  part: "module/st7789",
  width: 240,
  height: 240,
  memory: [240, 320],
  unit: 7,
  turned: true,
  settles: 1500,
});
export const ili9341 = colour({
  part: "module/ili9341",
  width: 240,
  height: 320,
  memory: [240, 320],
  unit: 7,
  turned: false,
  settles: 1500,
});

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

/** 128 columns of 8 pages; a byte is eight dots, the highest the lowest bit. Digits of 10 columns, 24 dots high. */
export const ssd1306Spi: Model = {
  part: "module/ssd1306-spi",
  worlds: [{}],
  within: { shows: 0 },
  wants: () => numbers(8).map((v) => [v, { shows: v }] as const),
  make: () => {
    const pages = Uint8Array.from({ length: 1024 }, (_, i) => (i * 151) & 255);
    let set = new Map<number, readonly number[]>();
    let flags = new Set<number>();
    let pending: { c: number; list: number[] } | null = null;
    let at = [0, 0];
    let flashed = false;
    const range = (c: number) => (set.get(c) as [number, number] | undefined) ?? [0, c === 0x21 ? 127 : 7];
    const out = told({
      resets_ms: 0.003,
      reset: () => {
        set = new Map();
        flags = new Set();
        pending = null;
        at = [0, 0];
      },
      command(c) {
        if (pending) {
          pending.list.push(c);
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
        if (c === 0xaf) flashed ||= pages.some((v) => v !== 0);
      },
      data(v) {
        const [x, y] = at as [number, number];
        pages[y * 128 + x] = v;
        const [x0, x1] = range(0x21);
        const [y0, y1] = range(0x22);
        at = x < x1 ? [x + 1, y] : [x0, y < y1 ? y + 1 : y0];
      },
    });
    return onSpi(out.spi, {
      pin: out.pin,
      is: () => {
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
        const lit = (x: number, y: number) => ((pages[(y >> 3) * 128 + x]! >> (y & 7)) & 1) === 1;
        const digit = (i: number): Rect[] => {
          const x = 8 + 14 * i;
          return [
            { x: x + 2, y: 16, w: 6, h: 3 },
            { x: x + 8, y: 16, w: 2, h: 11 },
            { x: x + 8, y: 29, w: 2, h: 11 },
            { x: x + 2, y: 37, w: 6, h: 3 },
            { x, y: 29, w: 2, h: 11 },
            { x, y: 16, w: 2, h: 11 },
            { x: x + 2, y: 27, w: 6, h: 2 },
          ];
        };
        return { shows: well ? numberOn(lit, 128, 64, [0, 1, 2, 3, 4, 5, 6, 7].map(digit)) : NaN };
      },
    });
  },
};
