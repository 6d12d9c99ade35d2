import jsonPatch, { type Operation } from "fast-json-patch";
import type { Part, PartOption } from "./schema";

export type OptionValues = Record<string, unknown>;
export interface OptionProblem {
  key: string;
  message: string;
}

function problemWith(option: PartOption, value: unknown): string | null {
  if (option.kind === "choice")
    return option.choices.some((c) => c.value === String(value).toLowerCase() || c.value === value)
      ? null
      : `${JSON.stringify(value)} is not one of ${option.choices.map((c) => c.value).join(", ")}`;
  if (typeof value !== "number" || !Number.isFinite(value)) return `${JSON.stringify(value)} is not a number`;
  return value < option.min || value > option.max
    ? `${value} is outside ${option.min} to ${option.max} ${option.unit}`.trim()
    : null;
}

/** What is wrong with the chosen option values: unknown keys and values outside what the part takes. */
export function optionProblems(part: Part, values: OptionValues): OptionProblem[] {
  return Object.entries(values).flatMap(([key, value]) => {
    const option = part.options.find((o) => o.key === key);
    if (!option) {
      const has = part.options.map((o) => o.key).join(", ");
      return [{ key, message: `${part.id} has no option "${key}"${has ? `; it has ${has}` : ""}` }];
    }
    const message = problemWith(option, value);
    return message ? [{ key, message }] : [];
  });
}

const chosen = (o: PartOption, values: OptionValues) => {
  const v = values[o.key] ?? o.default;
  return o.kind === "choice" ? String(v).toLowerCase() : v;
};

/** All option values of a part with defaults filled in. */
export function optionValues(part: Part, values: OptionValues): Record<string, string | number> {
  return Object.fromEntries(part.options.map((o) => [o.key, chosen(o, values) as string | number]));
}

const cache = new WeakMap<Part, Map<string, Part>>();

/** The definition with its choice options applied as JSON patches. The part itself is never changed. */
export function withOptions(part: Part, values: OptionValues): Part {
  const patches = part.options.flatMap((o) =>
    o.kind === "choice" ? (o.choices.find((c) => c.value.toLowerCase() === chosen(o, values))?.patch ?? []) : [],
  );
  if (!patches.length) return part;
  const text = JSON.stringify(patches);
  const known = cache.get(part) ?? new Map<string, Part>();
  cache.set(part, known);
  let out = known.get(text);
  if (!out) {
    out = jsonPatch.applyPatch(structuredClone(part), structuredClone(patches) as Operation[]).newDocument;
    known.set(text, out);
  }
  return out;
}

/** Numeric option values, as variables for the part's expressions. */
export function optionVars(part: Part, values: OptionValues): Record<string, number> {
  const out: Record<string, number> = {};
  for (const [k, v] of Object.entries(optionValues(part, values))) if (typeof v === "number") out[k] = v;
  return out;
}
