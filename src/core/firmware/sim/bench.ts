import type { Wire } from "../devices/run";

/** What the program's parts are to it: their sides of the buses and pins. Times are milliseconds since the program began. */
export interface SimBench {
  /** The part that a device talks to, by reference; null: nothing answers. */
  wire(ref: string): Wire | null;
  /** The level of a part's own pin as the program reads it: a contact, a line that rests. */
  level(ref: string, pin: string, now: number): 0 | 1;
  /** The program drives a pin. */
  drive(ref: string, pin: string, level: 0 | 1, now: number): void;
  /** How bright the program makes a light by pulses, in hundredths. */
  dim(ref: string, percent: number, now: number): void;
  /** Whether a key of a grid is held, by its place. */
  held(ref: string, place: number, now: number): boolean;
  /** Which lights of a grid are lit, by their places. */
  lit(ref: string, places: readonly boolean[], now: number): void;
  /** A strip's bytes, green, red and blue of each light. */
  strip(ref: string, grb: readonly number[], now: number): void;
}
