import type { Case } from "../cases/build";
import { hall } from "../cases/levels";

export const levelThinMarginCases: Case[] = [
  {
    rule: "level.thin-margin",
    severity: "risk",
    says: "the same with a resistor that is nearly right",
    bad: () => hall(2200),
    near: () => hall(470),
  },
];
