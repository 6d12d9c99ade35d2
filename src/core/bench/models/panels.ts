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
export function told(o: {
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
