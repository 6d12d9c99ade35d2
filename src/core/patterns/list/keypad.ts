import type { Pattern } from "../types";
import { COMPACT, follow, lamp, LONG, on, piece, USB } from "./pieces";

export const keypad: Pattern = {
  id: "keypad",
  title: "Number lock of the treasure chest",
  goal: "A foil of sixteen keys: the one that is held is shown as a number, and key 7 lights the lamp.",
  learns: "Sixteen keys on eight wires: rows and columns that are asked in turn.",
  boards: [LONG, COMPACT],
  parts: [
    USB,
    piece("M1", "module/keypad-4x4", "Keys"),
    piece("M2", "module/max7219-digits", "Digits"),
    lamp("LED1", "Open", "green"),
  ],
  rules: [follow("M2", "M1", "key"), { when: { ref: "M1", out: "key", is: 7 }, do: on("LED1") }],
  onward: [
    {
      id: "bolt",
      says: "A servo that draws the bolt while the right key is held.",
      parts: [piece("S2", "supply/adapter-5v-2a", "Bolt supply"), piece("M3", "module/servo-small", "Bolt")],
      rules: [{ when: { ref: "M1", out: "key", is: 7 }, do: { ref: "M3", act: "set", value: 90 } }],
    },
    {
      id: "wrong",
      says: "A red lamp for a wrong key.",
      parts: [lamp("LED2", "Wrong")],
      rules: [{ when: { ref: "M1", out: "key", is: 13 }, do: { ref: "LED2", act: "for", for_s: 2 } }],
    },
    {
      id: "lid",
      says: "A contact at the lid and a lamp that tells that it is open.",
      parts: [piece("SW1", "discrete/reed", "Lid"), lamp("LED2", "Lid open")],
      rules: [{ when: { ref: "SW1", out: "pressed", is: 0 }, do: on("LED2") }],
    },
  ],
};
