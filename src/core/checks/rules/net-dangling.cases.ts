import { AVR, CABLE, led, make, part, R, USB, type Case } from "../cases/build";

/** Two boards with a line driver each, and one wire from the first. */
const pair = (wire: [string, string]) =>
  make(
    [
      AVR,
      { ...AVR, ref: "B2" },
      USB,
      R("R1", 330),
      part("M1", "module/max485", {}, {}),
      part("M2", "module/max485", {}, {}),
    ],
    [CABLE, wire],
  );

export const netDanglingCases: Case[] = [
  {
    rule: "net.dangling",
    severity: "note",
    says: "a resistor whose other leg is free",
    bad: () => make([AVR, USB, R("R1", 330)], [CABLE, ["R1.1", "B1.D5"]]),
    near: () => make([AVR, USB, led("D1", 330)], [CABLE, ["D1.A", "B1.D5"], ["D1.K", "B1.GND"]]),
  },
  {
    rule: "net.dangling",
    severity: "note",
    says: "one wire of a pair that ends nowhere",
    bad: () => pair(["M1.A", "R1.1"]),
    near: () => pair(["M1.A", "M2.A"]),
  },
];
