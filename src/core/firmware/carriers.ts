import type { Part } from "../parts/catalogue";
import { DEVICES, wired } from "./devices";

/** Parts whose lines work other parts, as bits of what they are told and of what they read: which bit a line is. Adding one is a line. */
const ports = (label: string) => {
  const m = /^P([AB])([0-7])$/.exec(label);
  return m ? (m[1] === "B" ? 8 : 0) + Number(m[2]) : null;
};
const numbered = (prefix: string, count: number) => (label: string) => {
  const n = label.startsWith(prefix) ? Number(label.slice(prefix.length) || NaN) : NaN;
  return Number.isInteger(n) && n >= 0 && n < count ? n : null;
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
  "module/pca9685": numbered("PWM", 16),
};
/** Those of them whose lines make shares of full power and pulses as well, without an input among them. */
export const LANES: ReadonlySet<string> = new Set(["module/pca9685"]);
/** A part that reads voltages of others with a converter of its own, or passes one of many on. Adding one is a line. */
export interface VoltsReader {
  /** Which of its lines a pin is. */
  line(label: string): number | null;
  /** Which of its readings a line is, and what that is when the voltage is as high as the supply: its own, in millivolts, where absent. */
  reading(line: number): string;
  full?: number;
}
export const VOLTAGES: Readonly<Record<string, VoltsReader>> = {
  "module/cd4067": { line: numbered("C", 16), reading: (k) => `c${k}`, full: 1000 },
  "module/mcp3008": { line: numbered("CH", 8), reading: (k) => `c${k}`, full: 1023 },
  "module/ads1115": { line: numbered("A", 4), reading: (k) => `a${k}_mV` },
};
/** Bits that a number of the program holds. */
export const MOST_BITS = 24;

/** A device that looks or moves more often than this can't wait for another part, ms. */
const HURRY_MS = 10;

/** What a part at plain pins does with a pin, where it has time: a level either way, a voltage that is read, a share of full power or pulses. */
const USES = new Map(
  DEVICES.map((kind) => {
    const uses = new Map<string, "level" | "voltage" | "share">();
    for (const w of kind.cases) {
      const d = kind.of(wired(w));
      if (d.over?.kind !== "pins" || d.every < HURRY_MS) continue;
      // What goes on by itself there needs no program that goes on.
      for (const o of d.over.out ?? [])
        if (o.as === "duty" || o.as === "pulse" || o.as === "tone") uses.set(o.pin, "share");
      if (d.always) continue;
      for (const o of d.over.out ?? []) if (o.as === "level" || o.as === "switch") uses.set(o.pin, "level");
      for (const l of d.over.in ?? []) uses.set(l, "voltage");
    }
    return [kind.id, uses] as const;
  }),
);
/** Drivers that are no data, and only set or read a level. */
const DRIVERS_ANYWHERE: ReadonlySet<string> = new Set(["led", "button"]);

/** Whether a pin of a part is worked on another part's line as on the board's: levels, and voltages and shares where the line has them. */
export function worksAnywhere(
  part: Pick<Part, "id" | "bringup">,
  pin: string,
  line: "level" | "voltage" | "share",
): boolean {
  const volts = line === "voltage";
  if (!volts && DRIVERS_ANYWHERE.has(part.bringup?.driver ?? "")) return true;
  const use = USES.get(part.id)?.get(pin);
  // An input is read as what its need says: a level or a voltage.
  if (use === "share") return line === "share";
  return use !== undefined && (!volts || use === "voltage");
}
