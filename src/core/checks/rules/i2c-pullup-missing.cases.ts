import { part, type Case } from "../cases/build";
import { bus } from "../cases/buses";

export const i2cPullupMissingCases: Case[] = [
  {
    rule: "i2c.pullup-missing",
    severity: "fault",
    says: "a bare memory alone on the bus",
    bad: () => bus([part("M1", "module/at24c32")]),
    near: () => bus([part("M1", "module/at24c32", {}, { pullUp: { ohm: 4700 } })]),
    fix: "pull-up",
  },
];
