import type { Pattern } from "../types";
import { button, lamp, on, piece, pressed, USB } from "./pieces";

const key = (ref: string, note: number) => ({
  when: pressed(ref),
  do: { ref: "B1", act: "send" as const, send: { note } },
});

export const midiKeys: Pattern = {
  id: "midi-keys",
  title: "Garden chimes that the computer plays",
  goal: "Four touch plates on flower pots play four notes, a knob bends them.",
  learns: "Notes are numbers; a knob is a controller; the computer makes the sound.",
  boards: ["board/atmega32u4-compact", "board/atmega32u4-long"],
  board: { usbRole: "midi" },
  parts: [
    USB,
    button("SW1", "Low pot"),
    button("SW2", "Second pot"),
    button("SW3", "Third pot"),
    button("SW4", "High pot"),
    piece("M1", "discrete/potentiometer", "Bend"),
  ],
  rules: [
    key("SW1", 60),
    key("SW2", 62),
    key("SW3", 64),
    key("SW4", 67),
    { when: { ref: "M1", out: "pct" }, do: { ref: "B1", act: "send", send: { controller: 1 } } },
  ],
  onward: [
    {
      id: "fifth",
      says: "A fifth pot, a third higher.",
      parts: [button("SW5", "Fifth pot")],
      rules: [key("SW5", 69)],
    },
    {
      id: "touch",
      says: "A touch plate in place of a button: no press, no click.",
      parts: [piece("M2", "module/ttp223", "Touch pot")],
      rules: [{ when: { ref: "M2", out: "touched", is: 1 }, do: { ref: "B1", act: "send", send: { note: 72 } } }],
    },
    {
      id: "lamp",
      says: "A lamp that tells that the lowest note sounds.",
      parts: [lamp("LED1", "Low note", "green")],
      rules: [{ when: pressed("SW1"), do: on("LED1") }],
    },
  ],
};
