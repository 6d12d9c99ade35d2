import { AVR, type Case } from "../cases/build";
import { one } from "../cases/currents";

export const ledNoResistorCases: Case[] = [
  {
    rule: "led.no-resistor",
    severity: "stop",
    says: "a bare light on a pin",
    bad: () => one(AVR, null),
    near: () => one(AVR, 390),
    fix: "series-resistor",
  },
];
