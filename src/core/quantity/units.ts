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
const UNITS = "(?:ohms?|[ΩΩ]|V|A|F|Hz|W|s|m)";

export type ParsedQuantity = { ok: true; value: number } | { ok: false; message: string };

/**
 * Reads what people type for a quantity: `4k7`, `4.7k`, `100n`, `0,1u`, `20 mA`, `3.3V`, `2R2`.
 * Returns the value in the base unit (ohm, farad, ampere …). The unit, when typed, is not checked against a wish.
 */
export function parseQuantity(text: string): ParsedQuantity {
  const t = text.trim().replace(",", ".");
  const infix = new RegExp(`^(\\d+)([pnuµμmRrkKMG])(\\d+)\\s*${UNITS}?$`).exec(t);
  if (infix) return { ok: true, value: Number(`${infix[1]}.${infix[3]}`) * PREFIX[infix[2]!]! };
  const plain = new RegExp(`^([+-]?\\d*\\.?\\d+(?:e[+-]?\\d+)?)\\s*([pnuµμmRrkKMG]?)\\s*${UNITS}?$`).exec(t);
  if (plain) return { ok: true, value: Number(plain[1]) * PREFIX[plain[2]!]! };
  return { ok: false, message: `"${text}" is not a quantity; write it like 4k7, 100n or 20 mA` };
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
export const formatOhm = (ohm: number) => formatSI(ohm, "Ω");
