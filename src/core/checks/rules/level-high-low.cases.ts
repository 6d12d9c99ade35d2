import { CABLE, make, RP, part, USB, type Case } from "../cases/build";
import { hall } from "../cases/levels";

const through = (id: string) =>
  make(
    [
      RP,
      USB,
      part("D1", id, {}, { seriesResistor: null }),
      part("SW1", "discrete/button", {}, { pullUp: "internal" }),
      part("M1", "module/buzzer-active"),
    ],
    [
      CABLE,
      ["M1.VCC", "B1.3V3"],
      ["M1.GND", "B1.GND"],
      ["M1.IO", "B1.GP7"],
      ["SW1.1", "B1.GP4"],
      ["SW1.2", "D1.A"],
      ["D1.K", "B1.GP7"],
    ],
  );

export const levelHighLowCases: Case[] = [
  {
    rule: "level.high-low",
    severity: "fault",
    says: "an open-drain output behind too large a series resistor",
    bad: () => hall(4700),
    near: () => hall(470),
  },
  {
    rule: "level.high-low",
    severity: "fault",
    says: "a key read through a light",
    bad: () => through("discrete/led-red"),
    near: () => through("discrete/diode-1n4148"),
  },
];
