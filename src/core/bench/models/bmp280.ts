import { low, registers } from "./registers";
import type { Model, World } from "./types";

interface Trim {
  T: readonly number[];
  P: readonly number[];
}
/** The trimming words of the data sheet's worked example, and others with the signs the other way: each chip has its own. */
const EXAMPLE: Trim = { T: [27504, 26435, -1000], P: [36477, -10685, 3024, 2855, 140, -7, 15500, -14600, 6000] };
const OTHER: Trim = { T: [28485, 26735, 50], P: [36738, -10635, -3024, -1855, -140, 7, -9500, -10230, -4285] };

/** Degrees and pascals that raw values stand for, in the floating-point formulas of the data sheet. */
function physical({ T, P }: Trim, ut: number, up: number) {
  const a = (ut / 16384 - T[0]! / 1024) * T[1]!;
  const b = (ut / 131072 - T[0]! / 8192) ** 2 * T[2]!;
  const fine = a + b;
  let x = fine / 2 - 64000;
  let y = (x * x * P[5]!) / 32768 + x * P[4]! * 2;
  y = y / 4 + P[3]! * 65536;
  x = ((P[2]! * x * x) / 524288 + P[1]! * x) / 524288;
  x = (1 + x / 32768) * P[0]!;
  let p = ((1048576 - up - y / 4096) * 6250) / x;
  x = (P[8]! * p * p) / 2147483648;
  y = (p * P[7]!) / 32768;
  p += (x + y + P[6]!) / 16;
  return { t_C: fine / 5120, p_Pa: p };
}

/** The raw value at which `of` gives `want`, by halving. */
function solve(of: (raw: number) => number, want: number, falling: boolean): number {
  let [a, b] = [0, 2 ** 20 - 1];
  while (b - a > 1) {
    const m = (a + b) >> 1;
    if (of(m) < want !== falling) a = m;
    else b = m;
  }
  return a;
}

/** What its converters would show. */
function raws(trim: Trim, w: World): { ut: number; up: number } {
  const ut = solve((r) => physical(trim, r, 0).t_C, w.t_C!, false);
  return { ut, up: solve((r) => physical(trim, ut, r).p_Pa, w.p_hPa! * 100, true) };
}

/** BMP280, asleep until it is told; 6.4 ms a measurement with one sample each. */
export const bmp280: Model = {
  part: "module/bmp280",
  worlds: [
    { t_C: 25.08, p_hPa: 1006.53 },
    { t_C: 3.1, p_hPa: 1021.4 },
    { t_C: -11.3, p_hPa: 942.1 },
  ],
  within: { t_C: 0.02, p_hPa: 0.3 },
  make(w) {
    const trim = w.t_C! < 0 ? OTHER : EXAMPLE;
    const raw = raws(trim, w);
    let since = Infinity;
    return registers({
      left: { 0xf4: 0 },
      wrote(r, v, _f, now) {
        if (r === 0xf4) since = (v & 3) === 3 ? now : Infinity;
        return true;
      },
      value(r, f, now) {
        if (r === 0xd0) return 0x58;
        if (r >= 0x88 && r <= 0x9f) return [...trim.T, ...trim.P].flatMap((v) => low(v))[r - 0x88]!;
        if (r < 0xf7 || r > 0xfc) return f.get(r) ?? 0;
        const control = f.get(0xf4)!;
        const there = now - since >= 6.4;
        const up = there && (control >> 2) & 7 ? raw.up : 0x80000;
        const ut = there && control >> 5 ? raw.ut : 0x80000;
        return [up, ut].flatMap((v) => [v >> 12, (v >> 4) & 0xff, (v & 15) << 4])[r - 0xf7]!;
      },
    });
  },
};
