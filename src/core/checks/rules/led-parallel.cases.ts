import { AVR, CABLE, led, make, R, USB, type Case } from "../cases/build";

const shared = (own: boolean) =>
  own
    ? make(
        [AVR, USB, led("D1", 330), led("D2", 330)],
        [CABLE, ["D1.A", "B1.5V"], ["D2.A", "B1.5V"], ["D1.K", "B1.GND"], ["D2.K", "B1.GND"]],
      )
    : make(
        [AVR, USB, led("D1", null), led("D2", null), R("R1", 330)],
        [CABLE, ["R1.1", "B1.5V"], ["D1.A", "R1.2"], ["D2.A", "R1.2"], ["D1.K", "B1.GND"], ["D2.K", "B1.GND"]],
      );

export const ledParallelCases: Case[] = [
  {
    rule: "led.parallel",
    severity: "risk",
    says: "two lights share one resistor",
    bad: () => shared(false),
    near: () => shared(true),
    fix: "own-resistors",
  },
];
