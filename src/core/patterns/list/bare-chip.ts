import type { Pattern } from "../types";
import { button, lamp, on, piece, pressed } from "./pieces";

export const bareChip: Pattern = {
  id: "bare-chip",
  title: "Lighthouse in a matchbox",
  goal: "One chip on three cells flashes a lighthouse, and flashes twice when a button is pressed.",
  learns: "What a board has round its chip: a capacitor, a pull-up at reset, and an adapter that puts the program in.",
  boards: ["chip/attiny84-dip14", "chip/attiny85-dip8"],
  parts: [
    piece("S1", "supply/aa-3", "Cells"),
    piece("P1", "module/avr-programmer", "Programmer"),
    button("SW1", "Storm"),
    lamp("LED1", "Beacon", "white"),
  ],
  rules: [
    {
      when: { every_s: 4 },
      do: { ref: "LED1", act: "sequence", steps: [{ value: "on", for_s: 0.6 }] },
    },
    {
      when: pressed("SW1"),
      do: {
        ref: "LED1",
        act: "sequence",
        steps: [
          { value: "on", for_s: 0.3 },
          { value: "off", for_s: 0.3 },
        ],
        times: 5,
      },
    },
  ],
  onward: [
    {
      id: "second",
      says: "A red lamp that is lit while the storm button is held.",
      parts: [lamp("LED2", "Storm warning")],
      rules: [{ when: pressed("SW1"), do: on("LED2") }],
    },
    {
      id: "door",
      says: "A contact at the door of the tower, and a lamp that tells that it stands open.",
      parts: [piece("SW2", "discrete/limit-switch", "Door"), lamp("LED2", "Open")],
      rules: [{ when: { ref: "SW2", out: "pressed", is: 0 }, do: on("LED2") }],
    },
    {
      id: "keeper",
      says: "A window of the keeper's house that is lit for a minute after each press.",
      parts: [lamp("LED3", "Window", "yellow")],
      rules: [{ when: pressed("SW1"), do: { ref: "LED3", act: "for", for_s: 60 } }],
    },
  ],
};
