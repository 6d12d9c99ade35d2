import type { Pattern } from "../types";
import { button, COMMON, lamp, on, piece, pressed, USB } from "./pieces";

export const dryPlant: Pattern = {
  id: "dry-plant",
  title: "Fern that asks for water",
  goal: "A probe in the soil: a red lamp when it is dry, a green one when it is wet.",
  learns: "Two limits with room between them, so that nothing flickers; a reading that depends on the soil.",
  boards: COMMON,
  parts: [USB, piece("M1", "module/soil-capacitive", "Soil"), lamp("LED1", "Dry"), lamp("LED2", "Wet", "green")],
  rules: [
    { when: { ref: "M1", out: "pct", below: 35, hysteresis: 5 }, do: on("LED1") },
    { when: { ref: "M1", out: "pct", above: 60, hysteresis: 5 }, do: on("LED2") },
  ],
  onward: [
    {
      id: "show",
      says: "How damp it is as a number on a display.",
      parts: [piece("M2", "module/ssd1306-i2c", "Display")],
    },
    {
      id: "second",
      says: "A second pot with a lamp of its own.",
      parts: [piece("M2", "module/soil-capacitive", "Second soil"), lamp("LED3", "Second dry", "yellow")],
      rules: [{ when: { ref: "M2", out: "pct", below: 35, hysteresis: 5 }, do: on("LED3") }],
    },
    {
      id: "ask",
      says: "A button that sounds a buzzer: water is on its way.",
      parts: [button("SW1", "On my way"), piece("M2", "module/buzzer-active", "Buzzer")],
      rules: [{ when: pressed("SW1"), do: on("M2") }],
    },
  ],
};
