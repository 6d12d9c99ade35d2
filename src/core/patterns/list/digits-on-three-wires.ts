import type { Pattern } from "../types";
import { button, COMPACT, lamp, LONG, piece, pressed, USB } from "./pieces";

export const digitsOnThreeWires: Pattern = {
  id: "digits-on-three-wires",
  title: "Score of the bean-bag game",
  goal: "Each throw through the hole closes a contact; large red digits count.",
  learns: "Eight digits over three wires: clock, data, and a line that says when.",
  boards: [LONG, COMPACT],
  parts: [USB, piece("SW1", "discrete/limit-switch", "Hole"), piece("M1", "module/max7219-digits", "Score")],
  rules: [{ when: pressed("SW1"), do: { ref: "M1", act: "count" } }],
  onward: [
    {
      id: "last",
      says: "A toggle for the last round, with a red lamp.",
      parts: [piece("SW3", "discrete/toggle", "Last round"), lamp("LED2", "Last")],
      rules: [{ when: pressed("SW3"), do: { ref: "LED2", act: "on" } }],
    },
    {
      id: "glow",
      says: "A lamp in the hole for three seconds.",
      parts: [lamp("LED1", "Hit", "green")],
      rules: [{ when: pressed("SW1"), do: { ref: "LED1", act: "for", for_s: 3 } }],
    },
    {
      id: "second",
      says: "A second hole with a display of its own.",
      parts: [button("SW2", "Second hole"), piece("M2", "module/ssd1306-i2c", "Second score")],
      rules: [{ when: pressed("SW2"), do: { ref: "M2", act: "count" } }],
    },
  ],
};
