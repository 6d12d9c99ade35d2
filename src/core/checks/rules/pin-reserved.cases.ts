import { ESP, type Case } from "../cases/build";
import { at } from "../cases/pins";

export const pinReservedCases: Case[] = [
  {
    rule: "pin.reserved",
    severity: "stop",
    says: "a light on a flash pin",
    bad: () => at(ESP, "GPIO9"),
    near: () => at(ESP, "GPIO27"),
    fix: "move-pin",
  },
];
