import type { DriverPart } from "../types";

/** An output pin as a device writes it: bytes in the order of the list. */
export interface OutPin {
  pin: string;
  /**
   * `switch`: one byte, 1 is away from the resting level, so that a part that is on while low needs no other program.
   * `level`: one byte, 1 is high. `duty`: one byte, 255 is always on. `pulse`: two bytes, microseconds of a high that comes again and again.
   * `tone`: two bytes, hertz, 0 is silence.
   */
  as: "switch" | "level" | "duty" | "pulse" | "tone";
  /** How often pulses come, where that is not 50 times a second. */
  Hz?: number;
}

/** How a part is reached. What goes over it is bytes, whatever the wires. */
export type Over =
  | { kind: "i2c" }
  /** Its pins and its mode are those of the part's group. */
  | { kind: "spi" }
  | { kind: "onewire"; pin: string }
  /** One wire, the part answers with pulses of two lengths after the wire was held low: DHT22 and its kin. */
  | { kind: "pulses"; pin: string }
  /** Data that is clocked out, with so many clocks more to say what to measure next. One byte: whether it is ready. */
  | { kind: "clocked"; data: string; clock: string; more: number }
  /** A shift register: bytes are clocked in or out, then taken over by a pulse of the latch. */
  | { kind: "shift"; data: string; clock: string; latch: string; way: "in" | "out" }
  /** Keys on crossing lines: a bit for each, row by row, 1 is pressed; the first byte has the first rows. */
  | { kind: "matrix"; rows: readonly string[]; columns: readonly string[] }
  /** Plain pins: each input is two bytes, 0 or 1, or the voltage as a share of 65536. */
  | { kind: "pins"; out?: readonly OutPin[]; in?: readonly string[] };

/** A link in C++: what it stands on, and the calls. `bytes`, `to` and so on are expressions. */
export interface LinkInC {
  helpers: string;
  globals?(p: DriverPart): string;
  /** Beyond the resting levels of the part's outputs, which are set by themselves. */
  setup?(p: DriverPart): string;
  /** Statements; `break` when the part does not answer. */
  write(p: DriverPart, bytes: readonly string[]): string;
  /** An expression that is true when `n` bytes came to `b`; `from`: bytes that go out first in the same message. */
  read(p: DriverPart, n: number, from: readonly number[] | undefined): string;
}

/** The same in Python; what does not answer raises `OSError`. */
export interface LinkInPython {
  lib?: { path: string; text: string };
  imports?(p: DriverPart): string[];
  setup?(p: DriverPart): string;
  write(p: DriverPart, bytes: string): string;
  read(p: DriverPart, n: number, from: readonly number[] | undefined): string;
}

export interface Link<K extends Over["kind"]> {
  c(over: Extract<Over, { kind: K }>): LinkInC;
  python(over: Extract<Over, { kind: K }>): LinkInPython;
  /** Why a target can't do it, in words; null: it can. */
  unfit?(target: string): string | null;
}

/** Bytes as text that C and Python both take between quotes. */
export const escaped = (list: readonly number[]) => list.map((v) => `\\x${v.toString(16).padStart(2, "0")}`).join("");
export const hex = (v: number) => `0x${v.toString(16).toUpperCase().padStart(2, "0")}`;
/** A list of bytes in C, written by a call that takes the list and its length. */
export const listInC = (bytes: readonly string[], call: (list: string, n: string) => string) =>
  bytes.length
    ? `{\n  const uint8_t list[] = {${bytes.join(", ")}};\n  ${call("list", "sizeof list")}\n}`
    : call("nullptr", "0");
