import { AVR, type Case } from "../cases/build";
import { soil } from "../cases/pins";

export const pinCapabilityCases: Case[] = [
  {
    rule: "pin.capability",
    severity: "fault",
    says: "an analogue sensor on a digital pin",
    bad: () => soil(AVR, "D5"),
    near: () => soil(AVR, "A0"),
    fix: "move-pin",
  },
];
