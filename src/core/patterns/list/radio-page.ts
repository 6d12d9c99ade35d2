import type { Pattern } from "../types";
import { button, lamp, on, piece, pressed, USB } from "./pieces";

export const radioPage: Pattern = {
  id: "radio-page",
  title: "Weather of the tree house on the phone",
  goal: "Temperature, humidity and pressure of the tree house as a page that every phone in the house can read.",
  learns: "A board with a radio is a small server: who asks, who answers, and why nobody else can.",
  boards: ["board/esp32-thirtyeight", "board/esp32-thirty", "board/esp32-c3-mini"],
  board: { radio: "true" },
  parts: [USB, piece("M1", "module/bme280", "Tree house air")],
  rules: [],
  onward: [
    {
      id: "light",
      says: "How light it is, on the same two wires.",
      parts: [piece("M2", "module/bh1750", "Daylight")],
    },
    {
      id: "visitor",
      says: "A motion sensor that tells whether a squirrel is at home, and a lamp.",
      parts: [piece("M2", "module/pir", "Squirrel"), lamp("LED1", "At home", "green")],
      rules: [{ when: { ref: "M2", out: "moving", is: 1 }, do: on("LED1") }],
    },
    {
      id: "bell",
      says: "A bell button that the page tells of.",
      parts: [button("SW1", "Bell"), lamp("LED1", "Bell lamp", "yellow")],
      rules: [{ when: pressed("SW1"), do: on("LED1") }],
    },
  ],
};
