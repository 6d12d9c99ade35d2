import { AVR, changed, drop, part, planned, USB, type Case } from "../cases/build";

const echo = () => planned([AVR, USB, part("M1", "module/hc-sr04")]);

export const powerNoGroundCases: Case[] = [
  {
    rule: "power.no-ground",
    severity: "fault",
    says: "a sensor without its ground wire",
    bad: () => changed(echo(), drop("M1.GND", "B1.GND")),
    near: echo,
    fix: "wire-up",
  },
];
