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

/** Percent of humidity that a raw value stands for at a temperature, in the floating-point formula of the data sheet. */
function percent(H: readonly number[], fine: number, uh: number): number {
  const x = fine - 76800;
  const wet = uh - (H[3]! * 64 + (H[4]! / 16384) * x);
  const by = (H[1]! / 65536) * (1 + (H[5]! / 67108864) * x * (1 + (H[2]! / 67108864) * x));
  const v = wet * by;
  return Math.min(100, Math.max(0, v * (1 - (H[0]! * v) / 524288)));
}

/** How often a quantity is measured by its setting of three bits. */
const SAMPLES = [0, 1, 2, 4, 8, 16, 16, 16];
/** The longest time of a measurement by what is measured how often, ms. */
const longest = (t: number, p: number, h: number) =>
  1.25 + 2.3 * SAMPLES[t]! + (p && 2.3 * SAMPLES[p]! + 0.575) + (h && 2.3 * SAMPLES[h]! + 0.575);

/** Asleep until it is told. */
const sleeping = (o: {
  identity: number;
  trim: Trim;
  raw: { ut: number; up: number; uh: number };
  H: readonly number[];
}) => {
  let since = Infinity;
  /** The humidity setting holds once the other one is written. */
  let humid = 0;
  const { H } = o;
  const wet = [...low(H[1]!), H[2]!, H[3]! >> 4, (H[3]! & 15) | ((H[4]! & 15) << 4), H[4]! >> 4, H[5]!];
  return registers({
    left: { 0xf2: 0, 0xf4: 0 },
    wrote(r, v, f, now) {
      if (r !== 0xf4) return true;
      since = (v & 3) === 3 ? now : Infinity;
      humid = f.get(0xf2)! & 7;
      return true;
    },
    value(r, f, now) {
      if (r === 0xd0) return o.identity;
      if (r >= 0x88 && r <= 0x9f) return [...o.trim.T, ...o.trim.P].flatMap((v) => low(v))[r - 0x88]!;
      if (r === 0xa1) return H[0]!;
      if (r >= 0xe1 && r <= 0xe7) return wet[r - 0xe1]! & 0xff;
      if (r < 0xf7 || r > 0xfe) return f.get(r) ?? 0;
      const control = f.get(0xf4)!;
      const there = now - since >= longest(control >> 5, (control >> 2) & 7, humid);
      const up = there && (control >> 2) & 7 ? o.raw.up : 0x80000;
      const ut = there && control >> 5 ? o.raw.ut : 0x80000;
      const uh = there && humid ? o.raw.uh : 0x8000;
      return [...[up, ut].flatMap((v) => [v >> 12, (v >> 4) & 0xff, (v & 15) << 4]), uh >> 8, uh & 0xff][r - 0xf7]!;
    },
  });
};

/** `chip`: which of two, each with trimming words of its own. */
export const bmp280: Model = {
  part: "module/bmp280",
  worlds: [
    { t_C: 25.08, p_hPa: 1006.53 },
    { t_C: 3.1, p_hPa: 1021.4 },
    { t_C: -11.3, p_hPa: 942.1, chip: 1 },
  ],
  within: { t_C: 0.02, p_hPa: 0.3 },
  make(w) {
    const trim = w.chip ? OTHER : EXAMPLE;
    return sleeping({ identity: 0x58, trim, raw: { ...raws(trim, w), uh: 0x8000 }, H: [0, 0, 0, 0, 0, 0] });
  },
};

/** Humidity words H1 to H6 as chips have them, with both signs where the words have one. */
const WET = [75, 362, 0, 313, 50, 30];
const WET_OTHER = [75, 380, 3, 280, -11, -30];

export const bme280: Model = {
  part: "module/bme280",
  worlds: [
    { t_C: 25.08, p_hPa: 1006.53, rh: 41.7 },
    { t_C: 3.1, p_hPa: 1021.4, rh: 93.2 },
    { t_C: -11.3, p_hPa: 942.1, rh: 12.5, chip: 1 },
    { t_C: 51.2, p_hPa: 951.3, rh: 71.3, chip: 1 },
  ],
  within: { t_C: 0.02, p_hPa: 0.3, rh: 0.15 },
  make(w) {
    const other = Boolean(w.chip);
    const trim = other ? OTHER : EXAMPLE;
    const H = other ? WET_OTHER : WET;
    const raw = raws(trim, w);
    const fine = physical(trim, raw.ut, 0).t_C * 5120;
    return sleeping({
      identity: 0x60,
      trim,
      raw: { ...raw, uh: solve((r) => percent(H, fine, r), w.rh!, false) },
      H,
    });
  },
};
