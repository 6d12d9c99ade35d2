import type { BasicEdit, CompanionKey } from "../project";
import type { Values } from "./types";

/** A place in the project where a sum applies, with the project's own values filled in. */
export interface Hookup {
  id: string;
  ref: string;
  label: string;
  sum: string;
  /** What stands there now, in words. */
  now: string;
  values: Record<string, number>;
  /** The pin that the answer is for, where the part has several. */
  pin?: string;
}

type Set = [
  key: CompanionKey,
  value: (a: Values, pin?: string) => { ohm?: number | [number, number]; F?: number; pin?: string },
];
const SETS: Record<string, Set[]> = {
  light: [["seriesResistor", (a) => ({ ohm: a.ohm! })]],
  transistor: [["seriesResistor", (a) => ({ ohm: a.ohm! })]],
  mosfet: [
    ["seriesResistor", (a) => ({ ohm: a.gate_ohm! })],
    ["pullDown", (a) => ({ ohm: a.pull_ohm! })],
  ],
  divider: [["divider", (a, pin) => ({ ohm: [a.top_ohm!, a.bottom_ohm!], ...(pin && { pin }) })]],
  sensor: [["pullDown", (a) => ({ ohm: a.ohm! })]],
  pull: [["pullUp", (a) => ({ ohm: a.ohm! })]],
  debounce: [["filter", (a, pin) => ({ F: a.F!, ...(a.series_ohm && { ohm: a.series_ohm }), ...(pin && { pin }) })]],
  decoupling: [["bulkCapacitor", (a) => ({ F: a.F! })]],
  "i2c-pull-up": [["pullUp", (a) => ({ ohm: a.ohm! })]],
};

/** The edits that put a sum's answers into the project; `values` carries what was asked, `answers` what came out. */
export const takeAnswers = (h: Hookup, values: Values, answers: Values): BasicEdit[] =>
  (SETS[h.sum] ?? []).map(([key, value]) => ({
    type: "setCompanion",
    ref: h.ref,
    key,
    value: value({ ...values, ...answers }, h.pin),
  }));
