import { AVR, RP, planned, part, USB, type Case } from "../cases/build";
import { one } from "../cases/levels";

const small = (board: object) =>
  planned([board, USB, part("M1", "module/ws2812b-strip", { pixels: 6, brightness: 0.3 })]);

export const levelLowHighCases: Case[] = [
  {
    rule: "level.low-high",
    severity: "fault",
    says: "3.3 V data into a 5 V strip",
    bad: () => small(RP),
    near: () => small(AVR),
    fix: "buffer",
  },
  {
    rule: "level.low-high",
    severity: "fault",
    says: "a digit display at 5 V on a 3.3 V board",
    bad: () => one(RP, "module/max7219-digits"),
    near: () => one(AVR, "module/max7219-digits"),
    fix: "buffers",
  },
  {
    rule: "level.low-high",
    severity: "fault",
    says: "a 3.3 V sensor on the bus of a 5 V board",
    bad: () => one(AVR, "module/bme280"),
    near: () => one(RP, "module/bme280"),
    fix: "shifter",
  },
];
