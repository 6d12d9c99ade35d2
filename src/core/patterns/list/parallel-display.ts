import type { Pattern } from "../types";
import { button, lamp, LONG, on, piece, pressed, USB } from "./pieces";

export const parallelDisplay: Pattern = {
  id: "parallel-display",
  title: "Greenhouse thermometer with two rows",
  goal: "Two rows of large letters tell how warm it is at the tomatoes and how far the window stands open.",
  learns: "A display on six wires side by side, contrast by a knob, a probe on one wire with its pull-up.",
  boards: [LONG],
  parts: [
    USB,
    piece("M1", "module/lcd1602-parallel", "Rows"),
    piece("M2", "module/ds18b20", "Probe", { wire_cm: 100 }),
  ],
  rules: [],
  onward: [
    {
      id: "warn",
      says: "A lamp when it is too warm.",
      parts: [lamp("LED1", "Too warm")],
      rules: [{ when: { ref: "M2", out: "t", above: 32, hysteresis: 1 }, do: on("LED1") }],
    },
    {
      id: "window",
      says: "A knob at the window that tells how far it stands open.",
      parts: [piece("M3", "discrete/potentiometer", "Window")],
    },
    {
      id: "calls",
      says: "A button that sounds a buzzer at the house.",
      parts: [button("SW1", "Call"), piece("M3", "module/buzzer-active", "House buzzer")],
      rules: [{ when: pressed("SW1"), do: on("M3") }],
    },
  ],
};
