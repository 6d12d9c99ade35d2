import type { Part } from "../parts/catalogue";
import { DEVICES, wired } from "./devices";

/** Parts whose lines work other parts, as bits of what they are told and of what they read: which bit a line is. Adding one is a line. */
const ports = (label: string) => {
  const m = /^P([AB])([0-7])$/.exec(label);
  return m ? (m[1] === "B" ? 8 : 0) + Number(m[2]) : null;
};
const letters = (first: string) => (label: string) => {
  const k = label.charCodeAt(label.length - 1) - first.charCodeAt(0);
  return k >= 0 && k < 8 ? k : null;
};

export const CARRIERS: Readonly<Record<string, (label: string) => number | null>> = {
  "module/pcf8574": (label) => (/^P[0-7]$/.test(label) ? Number(label[1]) : null),
  "module/mcp23017": ports,
  "module/74hc595": letters("A"),
  "module/74hc165": letters("A"),
};
/** Lines whose voltage is read through another part's converter or switch: which of its readings it is, in thousandths. */
export const VOLTAGES: Readonly<Record<string, (label: string) => number | null>> = {
  "module/cd4067": (label) => (/^C([0-9]|1[0-5])$/.test(label) ? Number(label.slice(1)) : null),
};
/** Bits that a number of the program holds. */
export const MOST_BITS = 24;

/** A device that looks or moves more often than this can't wait for another part, ms. */
const HURRY_MS = 10;

/** What a part at plain pins does with a pin, where it has time: a level either way, or a voltage that is read. */
const USES = new Map(
  DEVICES.map((kind) => {
    const uses = new Map<string, "level" | "voltage">();
    for (const w of kind.cases) {
      const d = kind.of(wired(w));
      if (d.over?.kind !== "pins" || d.always || d.every < HURRY_MS) continue;
      for (const o of d.over.out ?? []) if (o.as === "level" || o.as === "switch") uses.set(o.pin, "level");
      for (const l of d.over.in ?? []) uses.set(l, "voltage");
    }
    return [kind.id, uses] as const;
  }),
);
/** Drivers that are no data, and only set or read a level. */
const DRIVERS_ANYWHERE: ReadonlySet<string> = new Set(["led", "button"]);

/** Whether a pin of a part is worked on another part's line as on the board's: levels, and voltages where the line reads them. */
export function worksAnywhere(part: Pick<Part, "id" | "bringup">, pin: string, volts: boolean): boolean {
  if (!volts && DRIVERS_ANYWHERE.has(part.bringup?.driver ?? "")) return true;
  const use = USES.get(part.id)?.get(pin);
  // An input is read as what its need says: a level or a voltage.
  return use !== undefined && (!volts || use === "voltage");
}
