import { AVR, CABLE, make, part, USB, type Case } from "../cases/build";
import { echo } from "../cases/levels";

export const partUnwiredCases: Case[] = [
  {
    rule: "part.unwired",
    severity: "note",
    says: "a sensor nobody wired",
    bad: () => make([AVR, USB, part("M1", "module/hc-sr04")], [CABLE]),
    near: () => echo(AVR),
  },
];
