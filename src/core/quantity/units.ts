const PREFIX: Record<string, number> = {
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  "": 1,
  R: 1,
  r: 1,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
};
/** Units as people write them, and what each of them measures. */
const WRITTEN: Record<string, Unit> = {
  ohm: "\u03a9",
  ohms: "\u03a9",
  // The Greek letter and the sign that looks like it.
  "\u03a9": "\u03a9",
  "\u2126": "\u03a9",
  V: "V",
  A: "A",
  F: "F",
  Hz: "Hz",
  W: "W",
  s: "s",
};
export type Unit = "\u03a9" | "V" | "A" | "F" | "Hz" | "W" | "s";
const UNITS = "(ohms?|[\\u03a9\\u2126]|V|A|F|Hz|W|s|m)";
const INFIX = new RegExp(`^([+-]?\\d+)([pnuµμmRrkKMG])(\\d+)\\s*${UNITS}?$`);
const PLAIN = new RegExp(`^([+-]?(?:\\d+\\.?\\d*|\\.\\d+)(?:e[+-]?\\d+)?)\\s*([pnuµμmRrkKMG]?)\\s*${UNITS}?$`);

/** How each unit is written, for a sentence that asks for it. */
const LIKE: Record<Unit, string> = {
  Ω: "4k7 or 220 Ω",
  V: "3.3 V",
  A: "20 mA",
  F: "100 nF",
  Hz: "400 kHz",
  W: "0.25 W",
  s: "10 ms",
};

/** Longer than anybody's value; and the largest and the smallest number that anything on a bench has, in any base unit. */
const MOST_LETTERS = 40;
const LARGEST = 1e15;
const SMALLEST = 1e-18;

export type ParsedQuantity = { ok: true; value: number } | { ok: false; message: string };

/** Letters that stand for ohms where a point would be: `2R2`. */
const isOhms = (prefix: string) => prefix === "R" || prefix === "r";

/**
 * Reads what people type for a quantity: `4k7`, `4.7k`, `100n`, `0,1u`, `20 mA`, `3.3V`, `2R2`.
 * Returns the value in the base unit (ohm, farad, ampere …). `unit`: what is wanted here, "" for a plain number; another one that is typed is refused.
 * Refuses in a sentence what no value on a bench can be; takes time in proportion to the length, up to a limit.
 */
export function parseQuantity(text: string, unit?: Unit | ""): ParsedQuantity {
  const like = unit ? LIKE[unit] : unit === "" ? "12 or 0.5" : "4k7, 100n or 20 mA";
  const no = (message: string): ParsedQuantity => ({ ok: false, message });
  const t = text.trim().replace(",", ".");
  if (t.length > MOST_LETTERS)
    return no(`"${t.slice(0, 12)}…" is longer than any quantity (${t.length} letters); write it like ${like}`);
  const m = INFIX.exec(t) ?? PLAIN.exec(t);
  if (!m) return no(`"${text.trim()}" is not a quantity; write it like ${like}`);
  const infix = /^\d+$/.test(m[3] ?? "");
  const prefix = m[2]!;
  const typed = WRITTEN[m[infix ? 4 : 3] ?? ""] ?? (isOhms(prefix) ? "Ω" : undefined);
  if (unit !== undefined && typed && typed !== unit)
    return no(`"${text.trim()}" is in ${typed}, and ${unit || "a plain number"} is wanted here; write it like ${like}`);
  const value = Number(infix ? `${m[1]}.${m[3]}` : m[1]) * PREFIX[prefix]!;
  if (Math.abs(value) > LARGEST || (value !== 0 && Math.abs(value) < SMALLEST))
    return no(`"${text.trim()}" is far from anything on a bench; write it like ${like}`);
  if (unit === "Ω" && value < 0)
    return no(`"${text.trim()}" is below zero, which no resistance is; write it like ${like}`);
  return { ok: true, value };
}

const STEPS: [number, string][] = [
  [1e6, "M"],
  [1e3, "k"],
  [1, ""],
  [1e-3, "m"],
  [1e-6, "µ"],
  [1e-9, "n"],
  [1e-12, "p"],
];

/** Writes a base-unit value for people: three significant digits and an SI prefix, `formatSI(0.02, "A")` = `20 mA`. */
export function formatSI(value: number, unit: string, digits = 3): string {
  if (!Number.isFinite(value)) return `∞ ${unit}`;
  if (value === 0) return `0 ${unit}`;
  const abs = Math.abs(value);
  const [scale, prefix] = STEPS.find(([s]) => abs >= s * 0.9995) ?? STEPS[STEPS.length - 1]!;
  return `${Number((value / scale).toPrecision(digits))} ${prefix}${unit}`;
}

/** Volts with two decimals, the way a person reads a meter. */
export const formatV = (v: number) => `${v.toFixed(2)} V`;
/** Ohms in the short style that is printed on bags: 330 Ω, 4.7 kΩ. */
export const formatFarad = (F: number) => formatSI(F, "F");
export const formatOhm = (ohm: number) => formatSI(ohm, "Ω");
