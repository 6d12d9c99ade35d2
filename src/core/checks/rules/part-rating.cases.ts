import { ADAPTER12, AVR, CABLE, make, part, R, USB, type Case } from "../cases/build";

const bleeder = (ohm: number) =>
  make([AVR, USB, ADAPTER12, R("R1", ohm)], [CABLE, ["S2.12V", "R1.1"], ["R1.2", "S2.GND"], ["S2.GND", "B1.GND"]]);
const smooth = (rated_V: number) =>
  make(
    [
      AVR,
      USB,
      { ref: "S2", part: "supply/bench", options: { output_V: 24 } },
      part("C1", "discrete/electrolytic", { capacitance_uF: 100, rated_V }),
    ],
    [CABLE, ["S2.+", "C1.+"], ["C1.-", "S2.-"], ["S2.-", "B1.GND"]],
  );

export const partRatingCases: Case[] = [
  {
    rule: "part.rating",
    severity: "stop",
    says: "100 Ω across 12 V: one and a half watts in a resistor for a quarter",
    bad: () => bleeder(100),
    near: () => bleeder(2200),
  },
  {
    rule: "part.rating",
    severity: "risk",
    says: "430 Ω across 12 V",
    bad: () => bleeder(430),
    near: () => bleeder(1000),
  },
  {
    rule: "part.rating",
    severity: "stop",
    says: "a capacitor for 16 V across 24 V",
    bad: () => smooth(16),
    near: () => smooth(35),
  },
];
