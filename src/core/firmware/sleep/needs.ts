import { DEVICES } from "../devices";
import type { Device, Step } from "../devices/types";
import { driverOf } from "../drivers";
import type { DriverPart } from "../types";

const kinds = new Map(DEVICES.map((d) => [d.id, d]));

/** A part as data, where it is worked so. */
export function deviceOf(p: DriverPart): Device | null {
  const driver = driverOf(p);
  return driver?.id === p.inst.part.id ? (kinds.get(driver.id)?.of(p) ?? null) : null;
}

/** The longest that steps take, ms; a turn of the loop for each round of a list. */
const longest = (steps: readonly Step[]): number =>
  steps.reduce((ms, s) => {
    if (s.do === "wait") return ms + s.ms;
    if (s.do === "until") return ms + s.every * s.most;
    if (s.do === "each") return ms + s.n * (1 + longest(s.steps));
    return ms;
  }, 0);

/** Nothing is looked at more often: contacts, voltages, echoes. */
const QUICK_MS = 100;

/**
 * Milliseconds from waking to a reading that is of this round: what is left of the pause that it slept in, and the longest that the
 * steps of a reading take, each from the data sheet; at first use the steps that begin it as well.
 */
export function needs_ms(p: DriverPart): number {
  const d = deviceOf(p);
  return d ? longest(d.begin) + longest(d.read) + d.every : QUICK_MS;
}
