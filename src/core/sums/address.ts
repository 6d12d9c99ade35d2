import { formatSI, parseQuantity, type Unit } from "../quantity";
import type { Field, Sum, Values } from "./types";

/** Units that are written with a prefix; others as plain numbers. */
const PREFIXED = new Set(["V", "A", "Ω", "F", "s", "W", "Hz"]);

/** The unit of a field that a typed one is held against; "" where it is a plain number. */
export const unitOf = (f: Field): Unit | "" => (PREFIXED.has(f.unit) ? (f.unit as Unit) : "");

/** A value the way a person writes it: `4.7 kΩ`, `8 mA`, `3`. */
export function showValue(value: number, unit: string): string {
  if (!Number.isFinite(value)) return "–";
  if (PREFIXED.has(unit)) return value === 0 ? `0 ${unit}` : formatSI(value, unit);
  const plain = String(Number(value.toPrecision(4)));
  return unit ? `${plain} ${unit}` : plain;
}

/** What is wrong with a value, in a sentence; null when it can be used. */
export function fieldProblem(f: Field, value: number): string | null {
  if (!Number.isFinite(value)) return `${f.label}: write a number, such as ${showValue(f.value, f.unit)}.`;
  if (f.choices && !f.choices.some((c) => c.value === value))
    return `${f.label}: choose one of ${f.choices.map((c) => c.label).join(", ")}.`;
  if (value < f.min || value > f.max)
    return `${f.label}: ${showValue(value, f.unit)} is outside ${showValue(f.min, f.unit)} to ${showValue(f.max, f.unit)}.`;
  if (f.whole && !Number.isInteger(value)) return `${f.label}: a whole number.`;
  return null;
}

export const startValues = (s: Sum): Record<string, number> =>
  Object.fromEntries(s.fields.map((f) => [f.key, f.value]));

/** Reads the values of an address such as `?V=5&I=8m`; what is missing or can't be used keeps its usual value and is told. */
export function readValues(
  s: Sum,
  get: (key: string) => string | null,
): { values: Record<string, number>; problems: string[] } {
  const values = startValues(s);
  const problems: string[] = [];
  for (const f of s.fields) {
    const text = get(f.key);
    if (text === null) continue;
    const q = parseQuantity(text, unitOf(f));
    const problem = q.ok ? fieldProblem(f, q.value) : `${f.label}: ${q.message}.`;
    if (problem) problems.push(`${problem} The usual ${showValue(f.value, f.unit)} stands.`);
    else if (q.ok) values[f.key] = q.value;
  }
  return { values, problems };
}

/** The part of an address that brings the same values back: only those that differ from the usual ones. */
export const writeValues = (s: Sum, v: Values): string =>
  s.fields
    .filter((f) => v[f.key] !== undefined && v[f.key] !== f.value)
    .map((f) => `${encodeURIComponent(f.key)}=${encodeURIComponent(String(Number(v[f.key]!.toPrecision(6))))}`)
    .join("&");
