import type { Pattern } from "../types";
import { button, COMPACT, follow, FORTY, LONG, lamp, on, piece, pressed, USB } from "./pieces";

export const dimmer: Pattern = {
  id: "dimmer",
  title: "Reading light with a knob",
  goal: "A ring of lights over the pillow: the further the knob is turned, the more of them are lit.",
  learns: "A divider that is turned by hand, a reading between nothing and all, a part that follows it.",
  boards: [LONG, FORTY, COMPACT],
  parts: [
    USB,
    piece("M1", "discrete/potentiometer", "Knob"),
    piece("M2", "module/ws2812b-ring-16", "Ring", { options: { brightness: 0.2 } }),
  ],
  houseRules: { strips: "usb-capped" },
  rules: [follow("M2", "M1", "pct")],
  onward: [
    {
      id: "night",
      says: "A small lamp that marks the switch in the dark, lit by a button for five minutes.",
      parts: [button("SW1", "Night"), lamp("LED1", "Night lamp", "yellow")],
      rules: [{ when: pressed("SW1"), do: { ref: "LED1", act: "for", for_s: 300 } }],
    },
    {
      id: "dusk",
      says: "A light sensor that tells when it is dark enough to read by lamp.",
      parts: [piece("M3", "discrete/ldr", "Dusk"), lamp("LED1", "Dark", "red")],
      rules: [{ when: { ref: "M3", out: "pct", below: 20, hysteresis: 5 }, do: on("LED1") }],
    },
    {
      id: "number",
      says: "A display that shows how far the knob is turned, in percent.",
      parts: [piece("M3", "module/ssd1306-i2c", "Percent")],
      rules: [follow("M3", "M1", "pct")],
    },
  ],
};
