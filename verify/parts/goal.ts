import type { As, Model, World } from "../../src/core/bench/models/types";
import { machineOf } from "../../src/core/firmware/devices/run";
import type { Device } from "../../src/core/firmware/devices/types";

/** A pulse timed by a program is some microseconds longer than it was asked to be. */
export const PULSE_DEG = 2;

/** What being told something does, by the interpreter. */
export function goalOf(m: Model, as: As, d: Device, want: number): World {
  const part = m.make({}, as);
  const machine = machineOf(d, part);
  machine.want = want;
  let now = 0;
  for (; now < 3000 + (m.settles ?? 0); now += Math.max(1, machine.turn(now)));
  return part.is!(now);
}
