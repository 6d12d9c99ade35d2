import { AVR, changed, drop, farEnd, type Case } from "../cases/build";
import { echo } from "../cases/levels";

export const netUndrivenCases: Case[] = [
  {
    rule: "net.undriven",
    severity: "fault",
    says: "the trigger of a distance sensor left open",
    bad: () => changed(echo(AVR), drop("M1.TRIG", farEnd(echo(AVR), "M1.TRIG"))),
    near: () => echo(AVR),
    fix: "drive",
  },
];
