import type { Pattern } from "../types";
import { button, COMMON, lamp, piece, pressed, USB } from "./pieces";

export const stripWithCap: Pattern = {
  id: "strip-with-cap",
  title: "Aurora over the school play",
  goal: "Thirty lights behind a paper sky, on while the stage manager's switch is on, never brighter than their supply allows.",
  learns:
    "Many lights are many milliamperes: a supply of their own, a cap for brightness, a resistor and a large capacitor at the strip.",
  boards: COMMON,
  parts: [
    USB,
    piece("S2", "supply/adapter-5v-2a", "Light supply"),
    piece("SW1", "discrete/toggle", "Sky"),
    piece("M1", "module/ws2812b-strip", "Aurora", { options: { pixels: 30, brightness: 0.4 } }),
  ],
  rules: [{ when: pressed("SW1"), do: { ref: "M1", act: "on" } }],
  onward: [
    {
      id: "stars",
      says: "A star that comes and goes by itself.",
      parts: [lamp("LED1", "Star", "yellow")],
      rules: [{ when: { every_s: 2 }, do: { ref: "LED1", act: "toggle" } }],
    },
    {
      id: "cue",
      says: "A cue light for the actors, ten seconds from a button.",
      parts: [button("SW2", "Cue"), lamp("LED1", "Cue light", "green")],
      rules: [{ when: pressed("SW2"), do: { ref: "LED1", act: "for", for_s: 10 } }],
    },
    {
      id: "wind",
      says: "Thunder from a small buzzer when the sky goes dark.",
      parts: [piece("M2", "module/buzzer-active", "Thunder")],
      rules: [{ when: { ref: "SW1", out: "pressed", is: 0 }, do: { ref: "M2", act: "for", for_s: 1 } }],
    },
  ],
};
