import { AVR, CABLE, make, RP, USB, type Case } from "../cases/build";

export const boardSolderCases: Case[] = [
  {
    rule: "board.solder",
    severity: "note",
    says: "headers come loose",
    bad: () => make([RP, USB], [CABLE]),
    near: () => make([AVR, USB], [CABLE]),
  },
];
