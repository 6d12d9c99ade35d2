import { AVR, CABLE, make, RP, USB, type Case } from "../cases/build";

export const partSolderCases: Case[] = [
  {
    rule: "part.solder",
    severity: "risk",
    says: "a board with loose headers, and no soldering iron",
    bad: () => make([RP, USB], [CABLE], { brief: { iron: false } }),
    near: () => make([AVR, USB], [CABLE], { brief: { iron: false } }),
  },
  {
    rule: "part.solder",
    severity: "risk",
    says: "soldering at once without an iron",
    bad: () => make([AVR, USB], [CABLE], { brief: { iron: false }, houseRules: { firstBuild: "solder" } }),
    near: () => make([AVR, USB], [CABLE], { brief: { iron: true }, houseRules: { firstBuild: "solder" } }),
    fix: "breadboard",
  },
];
