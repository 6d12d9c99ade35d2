import { AVR, CABLE, changed, drop, make, part, RP, USB, type Case } from "../cases/build";
import { pot } from "../cases/buses";

const light = (pullDown: object | null) =>
  make([RP, USB, part("RV1", "discrete/ldr", {}, { pullDown })], [CABLE, ["RV1.1", "B1.3V3"], ["RV1.2", "B1.GP26"]]);

export const adcOneSidedCases: Case[] = [
  {
    rule: "adc.one-sided",
    severity: "fault",
    says: "a photoresistor without its partner",
    bad: () => light(null),
    near: () => light({ ohm: 10_000 }),
    fix: "partner",
  },
  {
    rule: "adc.one-sided",
    severity: "fault",
    says: "a potentiometer on two of its legs",
    bad: () => changed(pot(AVR, "B1.5V", "A0"), drop("RV1.3", "B1.GND")),
    near: () => pot(AVR, "B1.5V", "A0"),
    fix: "partner",
  },
];
