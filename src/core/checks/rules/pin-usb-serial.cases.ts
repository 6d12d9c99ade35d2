import { AVR, type Case } from "../cases/build";
import { at } from "../cases/pins";

export const pinUsbSerialCases: Case[] = [
  {
    rule: "pin.usb-serial",
    severity: "risk",
    says: "a light on the console's line",
    bad: () => at(AVR, "D1"),
    near: () => at(AVR, "D7"),
    fix: "move-pin",
  },
];
