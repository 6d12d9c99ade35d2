import { part, type Case } from "../cases/build";
import { bus, text } from "../cases/buses";

const show = part("M2", "module/aht20");

const clockPart = part("M3", "module/ds3231");

export const i2cPullupStrongCases: Case[] = [
  {
    rule: "i2c.pullup-strong",
    severity: "risk",
    says: "three modules with 4.7 kΩ each at 5 V",
    bad: () => bus([text, show, clockPart]),
    near: () => bus([text, show]),
  },
];
