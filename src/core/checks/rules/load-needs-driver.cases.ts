import { AVR, CABLE, CHARGER, make, type Case } from "../cases/build";
import { pump, stage, IRLZ } from "../cases/currents";

const direct = (pinned: boolean) =>
  pinned ? make([AVR, CHARGER, pump()], [CABLE, ["MT1.1", "B1.D7"], ["MT1.2", "B1.GND"]]) : stage(IRLZ);

export const loadNeedsDriverCases: Case[] = [
  {
    rule: "load.needs-driver",
    severity: "stop",
    says: "a pump straight on a pin",
    bad: () => direct(true),
    near: () => direct(false),
    fix: "driver",
  },
];
