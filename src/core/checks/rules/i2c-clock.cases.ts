import type { Case } from "../cases/build";
import { bus, text } from "../cases/buses";

export const i2cClockCases: Case[] = [
  {
    rule: "i2c.clock",
    severity: "fault",
    says: "a text display at 400 kHz",
    bad: () => bus([text], { buses: [{ host: "B1", bus: "i2c0", clock_Hz: 400_000 }] }),
    near: () => bus([text]),
    fix: "slower",
  },
];
