import type { Case } from "../cases/build";
import { sagging } from "../cases/power";

export const powerBrownoutCases: Case[] = [
  {
    rule: "power.brownout",
    severity: "risk",
    says: "a motor that pulls three cells down",
    bad: () => sagging(120),
    near: () => sagging(60),
  },
  {
    rule: "power.brownout",
    severity: "risk",
    says: "a motor that three cells carry in a room, outdoors in winter",
    bad: () => sagging(60, "shelter"),
    near: () => sagging(60),
  },
];
