import type { Pattern } from "../types";
import { button, COMPACT, FORTY, lamp, LONG, on, piece, pressed, USB } from "./pieces";

export const motorWithDriver: Pattern = {
  id: "motor-with-driver",
  title: "Ferris wheel for acorns",
  goal: "A small motor turns a cardboard wheel while a button is held.",
  learns: "A pin can't feed a motor: a transistor switches it, a diode takes the kick, and it has a supply of its own.",
  boards: [LONG, FORTY, COMPACT],
  parts: [
    USB,
    piece("S2", "supply/adapter-5v-2a", "Motor supply"),
    button("SW1", "Turn"),
    piece("M1", "module/mosfet-switch", "Switch"),
    piece("MT1", "discrete/motor-dc", "Wheel"),
  ],
  links: [
    ["S2.5V", "M1.VIN+"],
    ["S2.GND", "M1.GND.2"],
    ["MT1.1", "M1.V+"],
    ["MT1.2", "M1.V-"],
  ],
  rules: [{ when: pressed("SW1"), do: on("M1") }],
  onward: [
    {
      id: "lamps",
      says: "A lamp on the wheel that is lit as long as it turns.",
      parts: [lamp("LED1", "Fairground", "yellow")],
      rules: [{ when: pressed("SW1"), do: on("LED1") }],
    },
    {
      id: "ride",
      says: "A second button starts a ride of twenty seconds with a bell before it.",
      parts: [button("SW2", "Ride"), piece("M2", "module/buzzer-active", "Ride bell")],
      rules: [{ when: pressed("SW2"), do: { ref: "M2", act: "for", for_s: 1 } }],
    },
    {
      id: "count",
      says: "Count the turns with a contact that the wheel closes.",
      parts: [piece("SW3", "discrete/reed", "Turn contact"), piece("M3", "module/ssd1306-i2c", "Turns")],
      rules: [{ when: pressed("SW3"), do: { ref: "M3", act: "count" } }],
    },
  ],
};
