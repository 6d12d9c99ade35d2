import type { Pattern } from "../types";
import { button, FORTY, lamp, on, piece, pressed, USB } from "./pieces";

export const usbKeyboard: Pattern = {
  id: "usb-keyboard",
  title: "Page turner for the rehearsal room",
  goal: "Two large buttons at the foot of the music stand turn the pages of the notes on the computer.",
  learns: "A board can be a keyboard: what a computer asks a new device, and why a contact bounces.",
  boards: ["board/atmega32u4-compact", "board/atmega32u4-long", FORTY],
  board: { usbRole: "keyboard" },
  parts: [USB, button("SW1", "Forward"), button("SW2", "Back")],
  rules: [
    { when: pressed("SW1"), do: { ref: "B1", act: "send", send: { key: "right" } } },
    { when: pressed("SW2"), do: { ref: "B1", act: "send", send: { key: "left" } } },
  ],
  onward: [
    {
      id: "lamp",
      says: "A lamp that shows that a press was felt.",
      parts: [lamp("LED1", "Felt", "green")],
      rules: [{ when: pressed("SW1"), do: on("LED1") }],
    },
    {
      id: "start",
      says: "A third button for the space bar: start and stop.",
      parts: [button("SW3", "Start")],
      rules: [{ when: pressed("SW3"), do: { ref: "B1", act: "send", send: { key: "space" } } }],
    },
    {
      id: "feet",
      says: "A foot switch beside the hand button, for the same key.",
      parts: [piece("SW3", "discrete/footswitch", "Foot")],
      rules: [{ when: pressed("SW3"), do: { ref: "B1", act: "send", send: { key: "right" } } }],
    },
  ],
};
