import { AVR, CABLE, make, part, R, RP, USB, type Case } from "../cases/build";

const AVR_I2C: [string, string][] = [
  ["M1.VCC", "B1.5V"],
  ["M1.SCL", "B1.A5"],
  ["M1.SDA", "B1.A4"],
];
const RP_I2C: [string, string][] = [
  ["M1.VCC", "B1.3V3"],
  ["M1.SCL", "B1.GP5"],
  ["M1.SDA", "B1.GP4"],
];

/** A shunt meter in the plus wire of a load, either way round. */
const metered = (output_V: number, plus: string, minus: string, board = AVR, lines = AVR_I2C) =>
  make(
    [
      board,
      USB,
      part("S2", "supply/bench", { output_V, limit_mA: 1000 }),
      part("M1", "module/ina219"),
      R("R1", 100_000),
    ],
    [
      CABLE,
      ...lines,
      ["M1.GND", "B1.GND"],
      ["S2.-", "B1.GND"],
      ["S2.+", `M1.${plus}`],
      [`M1.${minus}`, "R1.1"],
      ["R1.2", "S2.-"],
    ],
  );

export const commonModeCases: Case[] = [
  {
    rule: "level.common-mode",
    severity: "stop",
    says: "a shunt meter for 26 V in the plus wire of 28 V",
    bad: () => metered(28, "VIN+", "VIN-"),
    near: () => metered(24, "VIN+", "VIN-"),
  },
  {
    rule: "level.common-mode",
    severity: "stop",
    says: "the same with the shunt turned round, on a 3.3 V board",
    bad: () => metered(30, "VIN-", "VIN+", RP, RP_I2C),
    near: () => metered(12, "VIN-", "VIN+", RP, RP_I2C),
  },
];
