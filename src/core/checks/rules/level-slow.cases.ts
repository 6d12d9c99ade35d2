import { ADAPTER5, AVR, CABLE, make, part, USB, type Case } from "../cases/build";

const strip = (ohm: number) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part(
        "M1",
        "module/ws2812b-strip",
        { pixels: 10, brightness: 0.5 },
        { seriesResistor: { ohm }, bulkCapacitor: { F: 0.001 } },
      ),
    ],
    [CABLE, ["M1.5V", "S2.5V"], ["M1.GND", "S2.GND"], ["S2.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
  );

export const slowCases: Case[] = [
  {
    rule: "level.slow",
    severity: "risk",
    says: "2.2 kΩ in the data wire of a strip",
    bad: () => strip(2200),
    near: () => strip(470),
  },
  {
    rule: "level.slow",
    severity: "fault",
    says: "10 kΩ in the data wire of a strip",
    bad: () => strip(10_000),
    near: () => strip(330),
  },
];
