import { fixed } from "../../testing";
import { AVR, part, planned, RP, USB, type Case } from "../cases/build";

const strip = (board: object, pixels: number) =>
  planned([
    board as never,
    USB,
    { ref: "S2", part: "supply/adapter-5v-2a" },
    part("M1", "module/ws2812b-strip", { pixels, brightness: 0.01 }),
  ]);
/** From 3.3 V its data line needs lifting. */
const lifted = (board: object) => fixed(strip(board, 8), "level.low-high", "buffer");
const STM = { ref: "B1", part: "board/stm32f411-forty" };

/** A light that goes by a button. */
const followed = (out: string) => ({
  ...planned([AVR, USB, part("SW1", "discrete/button"), part("LED1", "discrete/led-red")]),
  rules: [{ when: { ref: "SW1", out, is: 1 }, do: { ref: "LED1", act: "on" as const } }],
});

export const firmwareCases: Case[] = [
  {
    rule: "firmware.memory",
    severity: "fault",
    says: "seven hundred lights on a chip with two kilobytes",
    bad: () => strip(AVR, 700),
    near: () => strip({ ref: "B1", part: "board/atmega2560-long" }, 700),
  },
  {
    rule: "firmware.capability",
    severity: "note",
    says: "lights whose timing is not written for the chip",
    bad: () => lifted(STM),
    near: () => lifted(RP),
  },
  {
    rule: "firmware.rule",
    severity: "risk",
    says: "a sentence that goes by something that its part does not give",
    bad: () => followed("weight"),
    near: () => followed("pressed"),
  },
];
