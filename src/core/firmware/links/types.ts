import type { DriverPart } from "../types";
import type { Over } from "./over";

export type { OutPin, Over } from "./over";

/** A link in C++: what it stands on, and the calls. `bytes`, `to` and so on are expressions. */
export interface LinkInC {
  helpers: string;
  /** What its helpers stand on, shared with others. */
  stands?: readonly string[];
  /** The same, for what only some parts need. */
  standsFor?(p: DriverPart): readonly string[];
  /** What stands on its helpers, for what only some parts need. */
  moreFor?(p: DriverPart): readonly string[];
  globals?(p: DriverPart): string;
  /** Beyond the resting levels of the part's outputs, which are set by themselves. */
  setup?(p: DriverPart): string;
  /** Statements; `break` when the part does not answer. `times`: how often all of the bytes go out in the one message, fast. */
  write(p: DriverPart, bytes: readonly string[], times: number | undefined): string;
  /** What bring-up tells of how it is reached, beside its reading: statements. */
  tells?(p: DriverPart): string;
  /** An expression that is true when `n` bytes came to `b`; `from`: bytes that go out first in the same message. */
  read(p: DriverPart, n: number, from: readonly number[] | undefined): string;
}

/** The same in Python; what does not answer raises `OSError`. */
export interface LinkInPython {
  lib?: { path: string; text: string };
  imports?(p: DriverPart): string[];
  setup?(p: DriverPart): string;
  write(p: DriverPart, bytes: string, times: number | undefined): string;
  read(p: DriverPart, n: number, from: readonly number[] | undefined): string;
  tells?(p: DriverPart): string;
}

export interface Link<K extends Over["kind"]> {
  c(over: Extract<Over, { kind: K }>): LinkInC;
  /** In plain C, where that is not the text of the sketches. */
  plain?(over: Extract<Over, { kind: K }>): LinkInC;
  python(over: Extract<Over, { kind: K }>): LinkInPython;
  /** Why a target can't do it, in words; null: it can. */
  unfit?(target: string): string | null;
  /** Why this part can't be reached where it is wired, in words; null: it can. */
  unfitPart?(p: DriverPart, over: Extract<Over, { kind: K }>): string | null;
}

/** Bytes as text that C and Python both take between quotes. */
export const escaped = (list: readonly number[]) => list.map((v) => `\\x${v.toString(16).padStart(2, "0")}`).join("");
export const hex = (v: number) => `0x${v.toString(16).toUpperCase().padStart(2, "0")}`;
/** A list of bytes in C, written by a call that takes the list and its length. */
export const listInC = (bytes: readonly string[], call: (list: string, n: string) => string) =>
  bytes.length
    ? `{\n  const uint8_t list[] = {${bytes.join(", ")}};\n  ${call("list", "sizeof list")}\n}`
    : call("nullptr", "0");
