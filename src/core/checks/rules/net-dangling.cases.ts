import { AVR, CABLE, led, make, R, USB, type Case } from "../cases/build";

export const netDanglingCases: Case[] = [
  {
    rule: "net.dangling",
    severity: "note",
    says: "a resistor whose other leg is free",
    bad: () => make([AVR, USB, R("R1", 330)], [CABLE, ["R1.1", "B1.D5"]]),
    near: () => make([AVR, USB, led("D1", 330)], [CABLE, ["D1.A", "B1.D5"], ["D1.K", "B1.GND"]]),
  },
];
