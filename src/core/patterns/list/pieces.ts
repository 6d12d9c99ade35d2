import type { Rule } from "../../project";
import type { PatternPart } from "../types";

/** Boards that most people have, the one with sockets first. */
export const LONG = "board/atmega328p-long";
export const COMPACT = "board/atmega328p-compact";
export const FORTY = "board/rp2040-forty";
export const RADIO = "board/esp32-thirtyeight";
export const COMMON = [LONG, FORTY, COMPACT, RADIO] as const;

/** Parts in short. */
export const piece = (ref: string, part: string, label: string, more: Partial<PatternPart> = {}): PatternPart => ({
  ref,
  part,
  label,
  ...more,
});
export const USB = piece("S1", "supply/usb-port", "USB");
export const button = (ref: string, label: string, more: Partial<PatternPart> = {}) =>
  piece(ref, "discrete/button", label, more);
export const lamp = (ref: string, label: string, colour = "red", more: Partial<PatternPart> = {}) =>
  piece(ref, `discrete/led-${colour}`, label, more);

/** Sentences in short. */
export const pressed = (ref: string): Rule["when"] => ({ ref, out: "pressed", is: 1 });
export const on = (ref: string): Rule["do"] => ({ ref, act: "on" });
export const follow = (ref: string, from: string, out: string): Rule => ({
  when: { ref: from, out },
  do: { ref, act: "follow" },
});
