import { AVR, type Case } from "../cases/build";
import { at } from "../cases/pins";

export const pinResetCases: Case[] = [
  {
    rule: "pin.reset",
    severity: "stop",
    says: "a light on the reset pin",
    bad: () => at(AVR, "RST"),
    near: () => at(AVR, "D12"),
    fix: "move-pin",
  },
];
