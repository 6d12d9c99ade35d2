import type { Pattern } from "../types";
import { button, lamp, on, piece, pressed, USB } from "./pieces";

export const gamePad: Pattern = {
  id: "game-pad",
  title: "Wheelhouse of a paper submarine",
  goal: "A stick and two buttons steer a submarine in a game on the computer.",
  learns: "Two knobs in one stick, a middle that is never quite the middle, buttons that have numbers.",
  boards: ["board/atmega32u4-compact", "board/atmega32u4-long", "board/samd21-compact"],
  board: { usbRole: "joystick" },
  parts: [USB, piece("M1", "module/joystick", "Stick"), button("SW1", "Dive"), button("SW2", "Sonar")],
  rules: [
    { when: { ref: "M1", out: "x" }, do: { ref: "B1", act: "send", send: { axis: "x" } } },
    { when: { ref: "M1", out: "y" }, do: { ref: "B1", act: "send", send: { axis: "y" } } },
    { when: pressed("SW1"), do: { ref: "B1", act: "send", send: { button: 1 } } },
    { when: pressed("SW2"), do: { ref: "B1", act: "send", send: { button: 2 } } },
  ],
  onward: [
    {
      id: "throttle",
      says: "A knob as throttle.",
      parts: [piece("M2", "discrete/potentiometer", "Throttle")],
      rules: [{ when: { ref: "M2", out: "pct" }, do: { ref: "B1", act: "send", send: { axis: "z" } } }],
    },
    {
      id: "hatch",
      says: "A third button for the hatch.",
      parts: [button("SW3", "Hatch")],
      rules: [{ when: pressed("SW3"), do: { ref: "B1", act: "send", send: { button: 3 } } }],
    },
    {
      id: "lamp",
      says: "A red lamp while the boat dives.",
      parts: [lamp("LED1", "Diving")],
      rules: [{ when: pressed("SW1"), do: on("LED1") }],
    },
  ],
};
