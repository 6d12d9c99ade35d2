import { make, part, type Case } from "../cases/build";

const CHIP = { ref: "B1", part: "chip/atmega328p-dip28", companions: { decoupling: { F: 1e-7 } } };

const pir = (series: object | null) =>
  make(
    [CHIP, { ref: "S1", part: "supply/adapter-5v-2a" }, part("M1", "module/hc-sr04", {}, { seriesResistor: series })],
    [
      ["S1.5V", "B1.VCC"],
      ["S1.5V", "B1.AVCC"],
      ["S1.GND", "B1.GND"],
      ["S1.GND", "B1.GND.2"],
      ["M1.VCC", "S1.5V"],
      ["M1.GND", "S1.GND"],
      ["M1.TRIG", "B1.PD4"],
      ["M1.ECHO", "B1.PB4"],
    ],
  );

export const pinIspSharedCases: Case[] = [
  {
    rule: "pin.isp-shared",
    severity: "risk",
    says: "an echo line straight on a programming pin",
    bad: () => pir(null),
    near: () => pir({ ohm: 1000, pin: "ECHO" }),
    fix: "series-resistor",
  },
];
