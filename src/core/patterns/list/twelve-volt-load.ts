import type { Pattern } from "../types";
import { button, COMPACT, FORTY, lamp, LONG, on, piece, pressed, USB } from "./pieces";

export const twelveVoltLoad: Pattern = {
  id: "twelve-volt-load",
  title: "Fogger valve of the moss house",
  goal: "A 12 V valve opens for five seconds when a button is pressed, and every hour by itself.",
  learns: "A load of another voltage: what is joined, what is not, and what a coil does when it is switched off.",
  boards: [LONG, FORTY, COMPACT],
  parts: [
    USB,
    piece("S2", "supply/adapter-12v-2a", "Valve supply"),
    button("SW1", "Mist now"),
    piece("M1", "module/mosfet-switch", "Switch"),
    piece("MT1", "discrete/solenoid", "Valve"),
  ],
  links: [
    ["S2.12V", "M1.VIN+"],
    ["S2.GND", "M1.GND.2"],
    ["MT1.1", "M1.V+"],
    ["MT1.2", "M1.V-"],
  ],
  rules: [
    { when: pressed("SW1"), do: { ref: "M1", act: "for", for_s: 5 } },
    { when: { every_s: 3600 }, do: { ref: "M1", act: "for", for_s: 5 } },
  ],
  onward: [
    {
      id: "lamp",
      says: "A lamp that tells that mist was asked for.",
      parts: [lamp("LED1", "Mist", "green")],
      rules: [{ when: pressed("SW1"), do: on("LED1") }],
    },
    {
      id: "dry",
      says: "A humidity sensor whose reading is told on a display.",
      parts: [piece("M3", "module/aht20", "Air"), piece("M4", "module/ssd1306-i2c", "Display")],
    },
    {
      id: "empty",
      says: "A float in the tank that warns with a buzzer when the water ends.",
      parts: [piece("SW2", "discrete/float-switch", "Tank"), piece("M3", "module/buzzer-active", "Warning")],
      rules: [{ when: pressed("SW2"), do: on("M3") }],
    },
  ],
};
