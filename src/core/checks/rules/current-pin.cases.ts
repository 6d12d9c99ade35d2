import { RP, type Case } from "../cases/build";
import { one } from "../cases/currents";

/** A chip whose pins have an absolute maximum of 10 mA. */
const IMX = { ref: "B1", part: "board/imxrt1062-compact" };

export const currentPinCases: Case[] = [
  {
    rule: "current.pin",
    severity: "risk",
    says: "too bright a light for a 3.3 V chip's pin",
    bad: () => one(RP, 150, "discrete/led-red", "GP15"),
    near: () => one(RP, 220, "discrete/led-red", "GP15"),
    fix: "series-resistor",
  },
  {
    rule: "current.pin",
    severity: "stop",
    says: "far too bright",
    bad: () => one(IMX, 100, "discrete/led-red", "D7"),
    near: () => one(IMX, 470, "discrete/led-red", "D7"),
    fix: "series-resistor",
  },
];
