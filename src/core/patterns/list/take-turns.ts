import type { Pattern } from "../types";
import { button, COMMON, lamp, on, piece, pressed, USB } from "./pieces";

export const takeTurns: Pattern = {
  id: "take-turns",
  title: "Whose turn is it",
  goal: "Three lamps for three players: each press hands the turn to the next.",
  learns: "One contact, three lights, and a program that remembers.",
  boards: COMMON,
  parts: [
    USB,
    button("SW1", "Next"),
    lamp("LED1", "Red player"),
    lamp("LED2", "Yellow player", "yellow"),
    lamp("LED3", "Green player", "green"),
  ],
  rules: [{ when: pressed("SW1"), do: { ref: "LED1", act: "next", among: ["LED2", "LED3"] } }],
  onward: [
    {
      id: "fourth",
      says: "A bell that sounds at each turn.",
      parts: [piece("M1", "module/buzzer-active", "Bell")],
      rules: [{ when: pressed("SW1"), do: { ref: "M1", act: "for", for_s: 0.2 } }],
    },
    {
      id: "turns",
      says: "Count the turns on a display.",
      parts: [piece("M1", "module/ssd1306-i2c", "Turns")],
      rules: [{ when: pressed("SW1"), do: { ref: "M1", act: "count" } }],
    },
    {
      id: "pause",
      says: "A toggle for a break, with a lamp of its own.",
      parts: [piece("SW2", "discrete/toggle", "Break"), lamp("LED4", "Break lamp", "green")],
      rules: [{ when: pressed("SW2"), do: on("LED4") }],
    },
  ],
};
