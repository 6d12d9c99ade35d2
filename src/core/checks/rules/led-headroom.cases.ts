import { AVR, RP, type Case } from "../cases/build";
import { one } from "../cases/currents";

export const ledHeadroomCases: Case[] = [
  {
    rule: "led.headroom",
    severity: "risk",
    says: "a blue light from 3.3 V",
    bad: () => one(RP, 100, "discrete/led-blue", "GP15"),
    near: () => one(AVR, 390, "discrete/led-blue"),
  },
];
