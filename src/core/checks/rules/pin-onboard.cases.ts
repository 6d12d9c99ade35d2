import { AVR, type Case } from "../cases/build";
import { at } from "../cases/pins";

export const pinOnboardCases: Case[] = [
  {
    rule: "pin.onboard",
    severity: "note",
    says: "a light where the board has one already",
    bad: () => at(AVR, "D13"),
    near: () => at(AVR, "D12"),
  },
];
