import type { Pattern } from "../types";
import { button, COMMON, follow, lamp, on, piece, pressed, USB } from "./pieces";

export const knobAndNeedle: Pattern = {
  id: "knob-and-needle",
  title: "Bathysphere depth gauge for the stage",
  goal: "Somebody behind the curtain turns a knob, and the needle of a paper dial follows on a servo.",
  learns: "A reading becomes a movement; a motor has a supply of its own and shares ground.",
  boards: COMMON,
  parts: [
    USB,
    piece("S2", "supply/adapter-5v-2a", "Needle supply"),
    piece("M1", "discrete/potentiometer", "Depth"),
    piece("M2", "module/servo-small", "Needle"),
  ],
  rules: [follow("M2", "M1", "pct")],
  onward: [
    {
      id: "alarm",
      says: "A red lamp that lights when it goes too deep.",
      parts: [lamp("LED1", "Too deep")],
      rules: [{ when: { ref: "M1", out: "pct", above: 80, hysteresis: 3 }, do: on("LED1") }],
    },
    {
      id: "second",
      says: "A second needle for pressure, on a knob of its own.",
      parts: [piece("M3", "discrete/potentiometer", "Pressure"), piece("M4", "module/servo-small", "Second needle")],
      rules: [follow("M4", "M3", "pct")],
    },
    {
      id: "horn",
      says: "A horn on a button.",
      parts: [button("SW1", "Horn key"), piece("M3", "module/buzzer-active", "Horn")],
      rules: [{ when: pressed("SW1"), do: on("M3") }],
    },
  ],
};
