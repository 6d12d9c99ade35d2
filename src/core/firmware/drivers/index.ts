/** The drivers, one file each. Adding one is a file and a line here. */
import { DEVICES } from "../devices";
import { deviceDriver } from "../devices/driver";
import type { Driver, DriverPart, Lack } from "../types";
import { button } from "./button";
import { generic } from "./generic";
import { keyGrid } from "./key-grid";
import { lightGrid } from "./light-grid";
import { lightRing } from "./light-ring";
import { led } from "./led";
import { ws2812b } from "./ws2812b";

export const DRIVERS: readonly Driver[] = [led, button, ws2812b, keyGrid, lightGrid, lightRing, generic];

const byId = new Map(DRIVERS.map((d) => [d.id, d]));

const devices = new Map(DEVICES.map((d) => [d.id, deviceDriver(d, generic)]));

/** A part on a two-wire bus is there when both its bus and its address are known. */
const isReached = (p: DriverPart) =>
  !p.inst.part.groups.some((g) => g.kind === "i2c") || ((p.bus || p.soft) && p.address);

/** A device's data come before what can be said of a part from its pins alone; a board that is an output to its computer has neither. */
const named = (p: DriverPart) =>
  (isReached(p) && devices.get(p.inst.part.id)) || byId.get(p.inst.part.bringup?.driver ?? "");

/** A driver that is no data speaks to the bus itself, in a sketch to a controller of the board and without opening a branch. */
const branchless = (p: DriverPart): Lack | null =>
  (p.via || (p.soft && !p.bus)) && p.target === "sketch" && !devices.has(p.inst.part.id)
    ? {
        kind: "capability",
        why: `a sketch works it on a bus of the board only, not on ${p.via ? "a branch of a bus switch" : "pins without a controller"}`,
      }
    : null;

/** What hangs on another part's lines is worked where that part is. */
function stranded(p: DriverPart): Lack | null {
  const off = [...(p.through?.values() ?? [])].find((at) => !at.on || !driverOf(at.on));
  if (!off) return null;
  return {
    kind: "capability",
    why: off.on
      ? `it hangs on ${off.on.ref}, which this program does not work`
      : "what it hangs on is not planned whole",
  };
}

/** The driver of a part, or undefined when there is none (the part is then only in the pins file). */
export function driverOf(p: DriverPart): Driver | undefined {
  const d = named(p);
  return p.unworked !== undefined || branchless(p) || stranded(p) || d?.unfit?.(p) ? undefined : d;
}

/** Why a part that has a driver is left out on its board, or null. */
export const leftOut = (p: DriverPart): Lack | null =>
  p.unworked ?? branchless(p) ?? stranded(p) ?? named(p)?.unfit?.(p) ?? null;
