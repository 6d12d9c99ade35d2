import type { Case } from "../cases/build";
import { rail } from "../cases/currents";

export const currentLedCases: Case[] = [
  {
    rule: "current.led",
    severity: "stop",
    says: "a light on the 5 V rail with 100 Ω",
    bad: () => rail(100),
    near: () => rail(220),
    fix: "series-resistor",
  },
];
