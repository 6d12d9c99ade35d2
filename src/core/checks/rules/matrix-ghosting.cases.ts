import { part, RP, planned, USB, type Case } from "../cases/build";

const keys = (n: number) =>
  n === 4
    ? planned([RP, USB, part("M1", "module/keypad-4x4")])
    : planned([RP, USB, part("SW1", "discrete/button"), part("SW2", "discrete/button")]);

export const matrixGhostingCases: Case[] = [
  {
    rule: "matrix.ghosting",
    severity: "note",
    says: "a keypad without diodes",
    bad: () => keys(4),
    near: () => keys(2),
  },
];
