import type { Pattern } from "../types";
import { FORTY, lamp, LONG, on, piece, RADIO, USB } from "./pieces";

export const distanceAndBeeps: Pattern = {
  id: "distance-and-beeps",
  title: "Cart that tells how near the wall is",
  goal: "An echo sensor at the back of a hand cart: a buzzer sounds when less than 30 cm are left, a lamp warns before.",
  learns: "Sound measures a distance; levels between a 5 V part and the board; two limits for one reading.",
  boards: [LONG, FORTY, RADIO],
  parts: [
    USB,
    piece("M1", "module/hc-sr04", "Distance"),
    piece("M2", "module/buzzer-active", "Beep"),
    lamp("LED1", "Near", "yellow"),
  ],
  rules: [
    { when: { ref: "M1", out: "cm", below: 30, hysteresis: 5 }, do: on("M2") },
    { when: { ref: "M1", out: "cm", below: 80, hysteresis: 5 }, do: on("LED1") },
  ],
  onward: [
    {
      id: "show",
      says: "Show the centimetres on a small display.",
      parts: [piece("M3", "module/ssd1306-i2c", "Display")],
    },
    {
      id: "hush",
      says: "A switch that leaves only the lamps: a red one tells that it is quiet now.",
      parts: [piece("SW1", "discrete/toggle", "Hush"), lamp("LED2", "Quiet")],
      rules: [{ when: { ref: "SW1", out: "pressed", is: 1 }, do: on("LED2") }],
    },
    {
      id: "safe",
      says: "A green lamp as long as there is more than a metre.",
      parts: [lamp("LED2", "Free", "green")],
      rules: [{ when: { ref: "M1", out: "cm", above: 100, hysteresis: 5 }, do: on("LED2") }],
    },
  ],
};
