import type { Case } from "../cases/build";
import { onUsb } from "../cases/power";

export const powerTightCases: Case[] = [
  {
    rule: "power.tight",
    severity: "risk",
    says: "seven lights at full white",
    bad: () => onUsb(6, 1),
    near: () => onUsb(5, 1),
  },
];
