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
const KL26 = { ref: "B1", part: "board/mkl26z64-compact" };

/** A light that goes by a button. */
const followed = (out: string) => ({
  ...planned([AVR, USB, part("SW1", "discrete/button"), part("LED1", "discrete/led-red")]),
  rules: [{ when: { ref: "SW1", out, is: 1 }, do: { ref: "LED1", act: "on" as const } }],
});

/** A board that is awake for some of every ten minutes. */
const asleep = (board: object, awake_s: number, ...more: object[]) =>
  planned([
    { ...board, sleep: { every_s: 600, awake_s } } as never,
    USB,
    part("M1", "module/scd41"),
    ...(more as never[]),
  ]);

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
    bad: () => lifted(KL26),
    near: () => lifted(RP),
  },
  {
    rule: "firmware.rule",
    severity: "risk",
    says: "a sentence that goes by something that its part does not give",
    bad: () => followed("weight"),
    near: () => followed("pressed"),
  },
  {
    rule: "firmware.sleep",
    severity: "risk",
    says: "a carbon dioxide sensor that takes five seconds, in a round that is awake for three",
    bad: () => asleep(AVR, 3),
    near: () => asleep(AVR, 20),
  },
  {
    rule: "firmware.sleep",
    severity: "risk",
    says: "sleep on a board whose watchdog or clock no program of ours uses",
    bad: () => asleep({ ref: "B1", part: "board/samd21-compact" }, 20),
    near: () => asleep(AVR, 20),
  },
  {
    rule: "firmware.sleep",
    severity: "note",
    says: "a key that nobody hears while the board sleeps",
    bad: () => asleep(AVR, 20, part("SW1", "discrete/button")),
    near: () => asleep(AVR, 20, part("LED1", "discrete/led-red")),
  },
];
