/** The values that a finding rests on: which they are, and how sure. */
import { findPin, standingOf, valueAt, type Standing } from "../parts/catalogue";
import type { Circuit } from "../circuit";
import type { Rest } from "./types";

type LevelKey = "VIH" | "VIL" | "VOH" | "VOL" | "absMax" | "pin_mA";

/** A value of the level set of a pin. */
export function levelRest(c: Circuit, at: { ref: string; pin: string }, key: LevelKey): Rest[] {
  const inst = c.netlist.instance(at.ref);
  const level = inst && findPin(inst.part, at.pin)?.level;
  const points = (key === "VOH" || key === "VOL") && inst && level && inst.part.levels[level]?.[key] === undefined;
  const path = `levels/${level}/${points ? "points" : key}`;
  return inst && level && valueAt(inst.part, path) !== undefined
    ? [{ ref: at.ref, path, called: `${key === "pin_mA" ? "the current limit" : key} of ${at.ref}.${at.pin}` }]
    : [];
}

export const supplyRest = (ref: string, key: string, what: "V" | "absMax_V" | "mA", pin: string): Rest => ({
  ref,
  path: `supplies/${key}/${what}`,
  called: `${{ V: "the range", absMax_V: "the absolute maximum", mA: "the current" }[what]} of ${ref}.${pin}`,
});

const HOW: Record<Standing, string> = {
  high: "sure",
  medium: "well known",
  low: "not sure",
  assumed: "a rule of thumb, not from a data sheet",
};
/** A value as it is told: options that it hangs on by what they are set to. */
const shown = (v: unknown, vars: Readonly<Record<string, number>>): string =>
  typeof v === "number" || typeof v === "string"
    ? `, ${String(v)
        .replace(/[A-Za-z_]\w*/g, (name) => (Object.hasOwn(vars, name) ? String(vars[name]) : name))
        .replaceAll("*", "·")}`
    : "";

const wordsOf = (c: Circuit, r: Rest): { text: string; certainty: Standing } | null => {
  const inst = c.netlist.instance(r.ref);
  if (!inst) return null;
  const { part } = inst;
  const { certainty, source } = standingOf(part, r.path);
  return {
    text: `${r.called}${shown(valueAt(part, r.path), inst.vars)} (${HOW[certainty]}${source ? `; ${source}` : ""})`,
    certainty,
  };
};

/** What a finding rests on, for its evidence; and the sentence for it where that is not sure. */
export function restsOf(c: Circuit, rests: readonly Rest[]): { all: string; doubt: string } {
  const list = rests.flatMap((r) => wordsOf(c, r) ?? []);
  const doubtful = list.filter((x) => x.certainty === "low" || x.certainty === "assumed");
  return {
    all: list.map((x) => x.text).join("; "),
    doubt: doubtful.length ? ` (Rests on ${doubtful.map((x) => x.text).join(" and ")}.)` : "",
  };
}
