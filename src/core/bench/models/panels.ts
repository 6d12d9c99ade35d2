import { BELOW, LETTERS, NUMBERS } from "./letters";
import { onSpi } from "./on-spi";
import type { Model } from "./types";

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
  /** A dot of a letter as it is to be read: so wide, so high. */
  block: [number, number];
  /** It shows dark what is lit unless it is turned over. */
  turned: boolean;
  settles: number;
}

/** Controllers of colour glasses: asleep after reset for 120 ms, then woken, 5 ms until the next command; windows and dots. */
function colour({ part, width, height, memory: [mw, mh], block: [bw, bh], turned, settles }: Glass): Model {
  const [cell, pitch] = [5 * bw + 1, Math.floor(height / 8)];
  const at = [Math.floor((width - 21 * cell) / 2), Math.floor((pitch - 8 * bh) / 2)] as const;
  /** A row of letters: every dot a whole block, nothing lit beside them. `seen` counts what is lit. */
  const row = (lit: (x: number, y: number) => boolean, r: number, seen: (n: number) => void) =>
    Array.from({ length: 21 }, (_, i) => {
      const hex = [0, 1, 2, 3, 4].map((x) => {
        let byte = 0;
        for (let k = 0; k < 8; k++) {
          let n = 0;
          for (let dy = 0; dy < bh; dy++)
            for (let dx = 0; dx < bw; dx++)
              if (lit(at[0] + i * cell + x * bw + dx, at[1] + r * pitch + k * bh + dy)) n++;
          seen(n);
          if (n === bw * bh) byte |= 1 << k;
          else if (n) return "?";
        }
        return byte.toString(16).padStart(2, "0");
      });
      return LETTERS.get(hex.join("")) ?? "?";
    }).join("");
  return {
    part,
    worlds: [{}],
    within: { shows: 0, letters: 0 },
    settles,
    acts: 2500,
    wants: () => NUMBERS.map((v) => [v, { shows: v, letters: 1 }] as const),
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
      let place = [0, 0];
      let window = { x: [0, mw - 1], y: [0, mh - 1] };
      const reset = () => {
        awake = null;
        on = inverted = false;
        bits = 0x66;
        last = 0;
        window = { x: [0, mw - 1], y: [0, mh - 1] };
      };
      const dot = (v: number) => {
        const [x, y] = place as [number, number];
        if (x < mw && y < mh) dots[y * mw + x] = v;
        place = x < window.x[1]! ? [x + 1, y] : [window.x[0]!, y < window.y[1]! ? y + 1 : window.y[0]!];
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
          if (c === 0x2c) place = [window.x[0]!, window.y[0]!];
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
          let within = 0;
          const rows = [0, 1, 2, 3, 4, 5, 6, 7].map((r) => row(lit, r, (n) => (within += n)));
          const plain = dots.every((d) => d === 0 || d === 0xffff);
          const all = dots.reduce((n, d) => n + (white(d) === 0xffff ? 1 : 0), 0);
          const well = plain && on && awake !== null && !flashed && all === within;
          const number = /^-?\d+ *$/.test(rows[0]!) && !rows[0]!.startsWith("-0") ? Number(rows[0]) : NaN;
          return { shows: well ? number : NaN, letters: Number(BELOW.every((t, i) => rows[i + 1] === t)) };
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
  block: [1, 2],
  turned: false,
  settles: 1200,
});
export const st7789 = colour({
  part: "module/st7789",
  width: 240,
  height: 240,
  memory: [240, 320],
  block: [2, 3],
  turned: true,
  settles: 2500,
});
export const ili9341 = colour({
  part: "module/ili9341",
  width: 240,
  height: 320,
  memory: [240, 320],
  block: [2, 3],
  turned: false,
  settles: 2500,
});
