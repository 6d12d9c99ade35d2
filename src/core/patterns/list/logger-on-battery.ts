import type { Pattern } from "../types";
import { FORTY, lamp, on, piece } from "./pieces";

export const loggerOnBattery: Pattern = {
  id: "logger-on-battery",
  title: "Cellar log for a winter of apples",
  goal: "Temperature and humidity of the apple cellar as a line on a memory card every ten minutes, on three AA cells.",
  learns: "How long cells last, a bus with addresses, a file that every computer opens.",
  boards: [FORTY, "board/rp2350-forty"],
  parts: [
    piece("S1", "supply/aa-3", "Cells"),
    piece("M1", "module/aht20", "Air"),
    piece("M2", "module/sd-3v3", "Card"),
  ],
  sleep: { every_s: 600, awake_s: 5 },
  place: "shelter",
  rules: [{ when: { every_s: 600 }, do: { ref: "M2", act: "log" } }],
  onward: [
    {
      id: "clock",
      says: "A clock, so that each line has its hour.",
      parts: [piece("M3", "module/ds3231", "Clock")],
    },
    {
      id: "frost",
      says: "A lamp that warns of frost.",
      parts: [lamp("LED1", "Frost")],
      rules: [{ when: { ref: "M1", out: "t", below: 2, hysteresis: 1 }, do: on("LED1") }],
    },
    {
      id: "light",
      says: "A light sensor that tells whether somebody left the door open.",
      parts: [piece("M3", "module/bh1750", "Door light")],
    },
  ],
};
