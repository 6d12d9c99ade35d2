import type { Case } from "../cases/build";
import { gauge } from "../cases/power";

export const wireDropCases: Case[] = [
  {
    rule: "wire.drop",
    severity: "risk",
    says: "two metres of 22 AWG",
    bad: () => gauge(22, 250, 30),
    near: () => gauge(18, 100, 30),
    fix: "gauge",
  },
];
