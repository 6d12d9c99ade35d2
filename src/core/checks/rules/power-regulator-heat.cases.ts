import { AVR, make, part, type Case, type Links } from "../cases/build";

const gas = (n: number, place = "room") =>
  make(
    [
      AVR,
      { ref: "S1", part: "supply/adapter-9v-1a" },
      ...Array.from({ length: n }, (_, i) => part(`M${i + 1}`, "module/mq2")),
    ],
    [
      ["S1.9V", "B1.VIN"],
      ["S1.GND", "B1.GND"],
      ...Array.from({ length: n }, (_, i): Links => [
        [`M${i + 1}.VCC`, "B1.5V"],
        [`M${i + 1}.GND`, "B1.GND"],
        [`M${i + 1}.AO`, `B1.A${i}`],
      ]).flat(),
    ],
    { brief: { place } },
  );

export const powerRegulatorHeatCases: Case[] = [
  {
    rule: "power.regulator-heat",
    severity: "stop",
    says: "two gas heaters behind the board's regulator at 9 V",
    bad: () => gas(2),
    near: () => gas(0),
  },
  {
    rule: "power.regulator-heat",
    severity: "stop",
    says: "a gas heater behind the board's regulator, in the sun",
    bad: () => gas(1, "sun"),
    // The gas sensor itself is not made for that heat.
    also: ["risk part.temperature"],
    near: () => gas(0, "sun"),
  },
];
