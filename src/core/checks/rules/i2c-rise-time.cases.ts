import type { Case } from "../cases/build";
import { bus3, air } from "../cases/buses";

const fast = { buses: [{ host: "B1", bus: "i2c0", clock_Hz: 400_000 }] };

export const i2cRiseTimeCases: Case[] = [
  {
    rule: "i2c.rise-time",
    severity: "risk",
    says: "10 kΩ at 400 kHz over 30 cm",
    bad: () => bus3([air("0x76", { wire_cm: 30 })], fast),
    near: () => bus3([air("0x76", { wire_cm: 30 })]),
    fix: "stronger",
  },
];
