import jsonPatch, { type Operation } from "fast-json-patch";
import { connectorPins, ConnectorPinsSchema, type ConnectorPins } from "./connector";
import type { Part, PartOption } from "./schema";

export type OptionValues = Record<string, unknown>;
export interface OptionProblem {
  key: string;
  message: string;
}

function pinsProblem(part: Part, value: unknown): string | null {
  const parsed = ConnectorPinsSchema.safeParse(value);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return `pin ${issue.path.join("/") || "list"}: ${issue.message}; write it like { "1": { "name": "CLK", "role": "digital-in", "V": 5 }, "3": null }`;
  }
  const strange = Object.keys(parsed.data).find((k) => !part.pins.some((p) => p.label === k || p.aliases?.includes(k)));
  return strange === undefined
    ? null
    : `there is no pin "${strange}"; the pins are ${part.pins.map((p) => p.label).join(", ")}`;
}

function problemWith(part: Part, option: PartOption, value: unknown): string | null {
  if (option.kind === "pins") return pinsProblem(part, value);
  if (option.kind === "choice")
    return option.choices.some((c) => c.value.toLowerCase() === String(value).toLowerCase())
      ? null
      : `${JSON.stringify(value)} is not one of ${option.choices.map((c) => c.value).join(", ")}`;
  if (typeof value !== "number" || !Number.isFinite(value)) return `${JSON.stringify(value)} is not a number`;
  return value < option.min || value > option.max
    ? `${value} is outside ${option.min} to ${option.max} ${option.unit}`.trim()
    : null;
}

/** Options that every part takes: the gauge of its supply wires when the person has chosen one. */
const ANY_PART: readonly PartOption[] = [
  { kind: "number", key: "wire_awg", label: "Supply wire", unit: "AWG", default: 22, min: 10, max: 32, step: 1 },
];

/** What is wrong with the chosen option values: unknown keys and values outside what the part takes. */
export function optionProblems(part: Part, values: OptionValues): OptionProblem[] {
  return Object.entries(values).flatMap(([key, value]) => {
    const option = [...part.options, ...ANY_PART].find((o) => o.key === key);
    if (!option) {
      const has = part.options.map((o) => o.key).join(", ");
      return [{ key, message: `${part.id} has no option "${key}"${has ? `; it has ${has}` : ""}` }];
    }
    const message = problemWith(part, option, value);
    return message ? [{ key, message }] : [];
  });
}

const chosen = (o: PartOption, values: OptionValues) => {
  if (o.kind === "pins") return undefined;
  const v = values[o.key] ?? o.default;
  return o.kind === "choice" ? String(v).toLowerCase() : v;
};

/** All option values of a part with defaults filled in; connector pins are left to `withOptions`. */
export function optionValues(part: Part, values: OptionValues): Record<string, string | number> {
  return Object.fromEntries(
    part.options.flatMap((o) => {
      const v = chosen(o, values);
      return v === undefined ? [] : [[o.key, v as string | number]];
    }),
  );
}

function patched(part: Part, values: OptionValues): Part {
  const patches = part.options.flatMap((o) =>
    o.kind === "choice" ? (o.choices.find((c) => c.value.toLowerCase() === chosen(o, values))?.patch ?? []) : [],
  );
  if (!patches.length) return part;
  return jsonPatch.applyPatch(structuredClone(part), structuredClone(patches) as Operation[]).newDocument;
}

function named(part: Part, values: OptionValues): Part {
  return part.options.reduce((p, o) => {
    const parsed = o.kind === "pins" ? ConnectorPinsSchema.safeParse(values[o.key] ?? {}) : null;
    return parsed?.success && Object.keys(parsed.data).length ? connectorPins(p, parsed.data as ConnectorPins) : p;
  }, part);
}

const cache = new WeakMap<Part, Map<string, Part>>();

/** The definition with its choices applied as JSON patches and a connector's pins named. The part itself is never changed. */
export function withOptions(part: Part, values: OptionValues): Part {
  if (!part.options.length) return part;
  const key = JSON.stringify(part.options.map((o) => (o.kind === "pins" ? values[o.key] : chosen(o, values))));
  const known = cache.get(part) ?? new Map<string, Part>();
  cache.set(part, known);
  let out = known.get(key);
  if (!out) {
    if (known.size > 200) known.clear();
    out = named(patched(part, values), values);
    known.set(key, out);
  }
  return out;
}

/** Numeric option values, as variables for the part's expressions. */
export function optionVars(part: Part, values: OptionValues): Record<string, number> {
  const out: Record<string, number> = {};
  for (const [k, v] of Object.entries(optionValues(part, values))) if (typeof v === "number") out[k] = v;
  return out;
}
