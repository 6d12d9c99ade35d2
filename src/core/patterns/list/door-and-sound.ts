import type { Pattern } from "../types";
import { button, COMMON, lamp, on, piece, pressed, USB } from "./pieces";

export const doorAndSound: Pattern = {
  id: "door-and-sound",
  title: "Hen-house door watch",
  goal: "When the door of the hen house stands open a green lamp is lit; when somebody opens it a buzzer sounds for a second.",
  learns: "A contact that a magnet closes, and the difference between while it holds and when it begins.",
  boards: COMMON,
  parts: [
    USB,
    piece("SW1", "discrete/reed", "Door"),
    lamp("LED1", "Open", "green"),
    piece("M1", "module/buzzer-active", "Buzzer"),
  ],
  rules: [
    { when: { ref: "SW1", out: "pressed", is: 0 }, do: on("LED1") },
    { when: { ref: "SW1", out: "pressed", is: 0 }, do: { ref: "M1", act: "for", for_s: 1 } },
  ],
  onward: [
    {
      id: "quiet",
      says: "A button that lights a lamp while the farmer is inside.",
      parts: [button("SW2", "Inside"), lamp("LED2", "Farmer inside", "yellow")],
      rules: [{ when: pressed("SW2"), do: on("LED2") }],
    },
    {
      id: "count",
      says: "Count how often it was opened.",
      parts: [piece("M2", "module/ssd1306-i2c", "Times")],
      rules: [{ when: { ref: "SW1", out: "pressed", is: 0 }, do: { ref: "M2", act: "count" } }],
    },
    {
      id: "night",
      says: "A light sensor: a lamp when it is dark.",
      parts: [piece("M2", "discrete/ldr", "Night"), lamp("LED2", "Dark")],
      rules: [{ when: { ref: "M2", out: "pct", below: 20, hysteresis: 5 }, do: on("LED2") }],
    },
  ],
};
