import type { Pattern } from "../types";
import { button, COMMON, follow, lamp, on, piece, pressed, USB } from "./pieces";

export const twoServos: Pattern = {
  id: "two-servos",
  title: "Puppet with two arms",
  goal: "Two knobs behind the stage move the two arms of a cardboard heron.",
  learns: "Two motors draw more than a board gives; grounds are joined, supplies are not.",
  boards: COMMON,
  parts: [
    USB,
    piece("S2", "supply/adapter-5v-2a", "Arm supply"),
    piece("M1", "discrete/potentiometer", "Left knob"),
    piece("M2", "discrete/potentiometer", "Right knob"),
    piece("M3", "module/servo-small", "Left arm"),
    piece("M4", "module/servo-small", "Right arm"),
  ],
  rules: [follow("M3", "M1", "pct"), follow("M4", "M2", "pct")],
  onward: [
    {
      id: "eyes",
      says: "Eyes that light while a button is held.",
      parts: [button("SW1", "Eyes"), lamp("LED1", "Left eye", "yellow"), lamp("LED2", "Right eye", "yellow")],
      rules: [
        { when: pressed("SW1"), do: on("LED1") },
        { when: pressed("SW1"), do: on("LED2") },
      ],
    },
    {
      id: "voice",
      says: "A croak from a buzzer.",
      parts: [button("SW1", "Croak"), piece("M5", "module/buzzer-active", "Throat")],
      rules: [{ when: pressed("SW1"), do: { ref: "M5", act: "for", for_s: 0.4 } }],
    },
    {
      id: "beak",
      says: "A third motor for the beak, opened by a button.",
      parts: [button("SW1", "Beak key"), piece("M5", "module/servo-small", "Beak")],
      rules: [{ when: pressed("SW1"), do: { ref: "M5", act: "set", value: 60 } }],
    },
  ],
};
