import type { Rule } from "../../project";
import type { Takes } from "../devices/types";

/** Something that a board with USB of its own sends to the computer. */
export type UsbEvent =
  | { kind: "key"; key: string }
  | { kind: "note"; note: number; channel: number }
  | { kind: "control"; controller: number; channel: number }
  | { kind: "button"; button: number }
  | { kind: "axis"; axis: (typeof AXES)[number] };

export const AXES = ["x", "y", "z", "rx", "ry", "rz"] as const;

/** What the board is to the computer, for each kind of event, as its option calls it. */
export const ROLE: Record<UsbEvent["kind"], string> = {
  key: "keyboard",
  note: "midi",
  control: "midi",
  button: "joystick",
  axis: "joystick",
};

/** Keys with names, by their usage numbers of the HID usage tables (keyboard page). */
const NAMES = {
  enter: 0x28,
  escape: 0x29,
  backspace: 0x2a,
  tab: 0x2b,
  space: 0x2c,
  right: 0x4f,
  left: 0x50,
  down: 0x51,
  up: 0x52,
};
const NAMED: ReadonlyMap<string, number> = new Map(Object.entries(NAMES));
/** Those of an American keyboard in the order of their usage numbers from 0x1E, without and with the shift key. */
const ROW = ["1234567890", "!@#$%^&*()"];
const SIGNS = ["-=[]\\ ;'`,./", '_+{}| :"~<>?'];

/** A key's usage number and whether shift goes with it; null for what is no key of an American keyboard. */
export function usageOf(key: string): { code: number; shift: boolean } | null {
  const named = NAMED.get(key);
  if (named !== undefined) return { code: named, shift: false };
  if (/^f([1-9]|1[0-2])$/.test(key)) return { code: 0x39 + Number(key.slice(1)), shift: false };
  if (key === " ") return { code: NAMES.space, shift: false };
  if (key.length !== 1) return null;
  const letter = key.toLowerCase().charCodeAt(0) - 97;
  if (letter >= 0 && letter < 26) return { code: 0x04 + letter, shift: key !== key.toLowerCase() };
  for (const [k, row] of ROW.entries()) {
    const at = row.indexOf(key);
    if (at >= 0) return { code: 0x1e + at, shift: k === 1 };
  }
  for (const [k, row] of SIGNS.entries()) {
    const at = row.indexOf(key);
    if (at >= 0 && key !== " ") return { code: 0x2d + at, shift: k === 1 };
  }
  return null;
}
export const KEY_NAMES = [...NAMED.keys(), ...Array.from({ length: 12 }, (_, i) => `f${i + 1}`)];

type Send = Extract<Rule["do"], { act: "send" }>;

/** What a rule sends, or why it can't be sent. */
export function eventOf({ send: s }: Send): UsbEvent | string {
  if ("key" in s)
    return usageOf(s.key)
      ? { kind: "key", key: s.key }
      : `"${s.key}" is no key here: one character of an American keyboard, or ${KEY_NAMES.slice(0, 9).join(", ")}, f1 to f12`;
  if ("note" in s) return { kind: "note", note: s.note, channel: s.channel ?? 1 };
  if ("controller" in s) return { kind: "control", controller: s.controller, channel: s.channel ?? 1 };
  if ("button" in s) return { kind: "button", button: s.button };
  return { kind: "axis", axis: s.axis };
}

/** What people call it: `key a`, `note 60`. */
export const eventWords = (e: UsbEvent): string =>
  e.kind === "key"
    ? `key ${e.key}`
    : e.kind === "note"
      ? `note ${e.note}${e.channel === 1 ? "" : ` on channel ${e.channel}`}`
      : e.kind === "control"
        ? `controller ${e.controller}${e.channel === 1 ? "" : ` on channel ${e.channel}`}`
        : e.kind === "button"
          ? `button ${e.button}`
          : `axis ${e.axis}`;

/** A name in the program; different for different events. */
export const eventId = (e: UsbEvent): string =>
  e.kind === "key"
    ? `usb_key_${[...e.key].map((c) => (/[a-z0-9]/.test(c) ? c : c.charCodeAt(0).toString(16))).join("_")}`
    : `usb_${eventWords(e).replace(/\W+/g, "_")}`;

/** What it takes: on or off, or how far. */
export function eventTakes(e: UsbEvent): Takes {
  const range: [number, number] = e.kind === "control" ? [0, 127] : e.kind === "axis" ? [-127, 127] : [0, 1];
  return {
    word: e.kind === "control" || e.kind === "axis" ? "value" : "down",
    unit: "",
    digits: 0,
    range,
    rest: 0,
    on: range[1],
  };
}
