import { AVR, CABLE, make, part, USB, type Case } from "../cases/build";

const strip = (series: object | null) =>
  make(
    [
      AVR,
      USB,
      part(
        "M1",
        "module/ws2812b-strip",
        { pixels: 6, brightness: 0.3 },
        { seriesResistor: series, bulkCapacitor: { F: 0.001 } },
      ),
    ],
    [CABLE, ["M1.5V", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
  );

export const ledDataResistorCases: Case[] = [
  {
    rule: "led.data-resistor",
    severity: "note",
    says: "a strip without a resistor in its data wire",
    bad: () =>
      make(
        [AVR, USB, part("M1", "module/ws2812b-strip", { pixels: 6, brightness: 0.3 }, { bulkCapacitor: { F: 0.001 } })],
        [CABLE, ["M1.5V", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
      ),
    near: () => strip({ ohm: 330 }),
  },
];
