import type { Case } from "../cases/build";
import { gauge } from "../cases/power";

export const wireAmpacityCases: Case[] = [
  {
    rule: "wire.ampacity",
    severity: "stop",
    says: "two amperes through 28 AWG",
    bad: () => gauge(28, 15, 60),
    near: () => gauge(20, 15, 60),
    fix: "gauge",
  },
];
