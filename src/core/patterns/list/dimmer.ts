import type { Pattern } from "../types";
import { button, COMPACT, follow, FORTY, LONG, lamp, on, piece, pressed, USB } from "./pieces";

export const dimmer: Pattern = {
  id: "dimmer",
  title: "Reading light with a knob",
  goal: "A yellow light over the pillow: the further the knob is turned, the brighter it is.",
  learns:
    "A divider that is turned by hand, a reading between nothing and all, and a light that flickers faster than the eye sees.",
  boards: [LONG, FORTY, COMPACT],
  parts: [USB, piece("M1", "discrete/potentiometer", "Knob"), lamp("LED1", "Light", "yellow")],
  rules: [follow("LED1", "M1", "pct")],
  onward: [
    {
      id: "night",
      says: "A small lamp that marks the switch in the dark, lit by a button for five minutes.",
      parts: [button("SW1", "Night"), lamp("LED2", "Night lamp", "green")],
      rules: [{ when: pressed("SW1"), do: { ref: "LED2", act: "for", for_s: 300 } }],
    },
    {
      id: "dusk",
      says: "A light sensor that tells when it is dark enough to read by lamp.",
      parts: [piece("M3", "discrete/ldr", "Dusk"), lamp("LED2", "Dark", "red")],
      rules: [{ when: { ref: "M3", out: "pct", below: 20, hysteresis: 5 }, do: on("LED2") }],
    },
    {
      id: "number",
      says: "A display that shows how far the knob is turned, in percent.",
      parts: [piece("M3", "module/ssd1306-i2c", "Percent")],
      rules: [follow("M3", "M1", "pct")],
    },
  ],
};
