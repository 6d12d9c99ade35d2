import type { Pattern } from "../types";
import { button, COMMON, lamp, on, piece, pressed, USB } from "./pieces";

export const lightAndButton: Pattern = {
  id: "light-and-button",
  title: "Bell lamp for the workshop",
  goal: "Press at the door and a lamp on the bench lights, for whoever wears ear protection.",
  learns: "A circuit, a resistor before a light, an input with a pull-up.",
  boards: COMMON,
  parts: [USB, button("SW1", "Bell"), lamp("LED1", "Lamp")],
  rules: [{ when: pressed("SW1"), do: on("LED1") }],
  onward: [
    {
      id: "both",
      says: "A second button at the garden gate, with a lamp of its own colour.",
      parts: [button("SW2", "Gate"), lamp("LED2", "Gate lamp", "green")],
      rules: [{ when: pressed("SW2"), do: on("LED2") }],
    },
    {
      id: "loud",
      says: "A buzzer for those who do hear.",
      parts: [piece("M1", "module/buzzer-active", "Buzzer")],
      rules: [{ when: pressed("SW1"), do: { ref: "M1", act: "for", for_s: 0.5 } }],
    },
    {
      id: "count",
      says: "Count who called while nobody was there.",
      parts: [piece("M1", "module/ssd1306-i2c", "Calls")],
      rules: [{ when: pressed("SW1"), do: { ref: "M1", act: "count" } }],
    },
  ],
};
