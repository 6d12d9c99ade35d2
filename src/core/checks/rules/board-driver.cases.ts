import { AVR, CABLE, make, RP, USB, type Case } from "../cases/build";

export const boardDriverCases: Case[] = [
  {
    rule: "board.driver",
    severity: "note",
    says: "a serial bridge wants a driver",
    bad: () => make([AVR, USB], [CABLE]),
    near: () => make([RP, USB], [CABLE]),
  },
];
