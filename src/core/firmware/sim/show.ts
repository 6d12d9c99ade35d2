import type { Quantity } from "../devices/types";

/** A line of a display or a console holds so many characters of one part. */
export const LINE = 21;

/** A whole number of fractions as people read it, rounded away from zero at the half. */
export function fixed(value: number, digits: number, shown: number): string {
  const cut = 10 ** (digits - shown);
  const v = Math.floor((Math.abs(value) + Math.floor(cut / 2)) / cut);
  const sign = value < 0 && v ? "-" : "";
  if (!shown) return `${sign}${v}`;
  const text = String(v).padStart(shown + 1, "0");
  return `${sign}${text.slice(0, -shown)}.${text.slice(-shown)}`;
}

/** Readings in one line, as every program says them. */
export const saying = (out: readonly Quantity[], values: ReadonlyMap<string, number>): string =>
  out
    .map(
      (q, i) =>
        `${i ? (q.after ?? " ") : ""}${q.word ? `${q.word} ` : ""}${fixed(values.get(q.name)!, q.digits, q.shown ?? q.digits).padStart(q.after ? 2 : 1, "0")}${q.unit ? ` ${q.unit}` : ""}`,
    )
    .join("")
    .slice(0, LINE);

/** While there is none. */
export const silence = (label: string): string => `${label.slice(0, 16)} --`;
