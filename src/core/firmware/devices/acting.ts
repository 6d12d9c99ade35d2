import type { OutPin } from "../links/over";
import type { Device, DeviceProof, Step, Takes } from "./types";

/** Pins that are all written alike. */
export const pinsAs = (as: OutPin["as"], ...pins: string[]): OutPin[] => pins.map((pin) => ({ pin, as }));

/** A part at plain pins that does what it is told, and needs no beginning. */
export const acting = (
  id: string,
  out: readonly OutPin[],
  read: readonly Step[],
  takes: Takes,
  proof: DeviceProof,
  every = 20,
): Device => ({ id, over: { kind: "pins", out }, begin: [], read, every, out: [], takes, proof });
