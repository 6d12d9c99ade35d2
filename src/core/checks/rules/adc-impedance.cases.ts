import { AVR, type Case } from "../cases/build";
import { pot } from "../cases/buses";

export const adcImpedanceCases: Case[] = [
  {
    rule: "adc.impedance",
    severity: "risk",
    says: "a 100 kΩ potentiometer",
    bad: () => pot(AVR, "B1.5V", "A0", 100_000),
    near: () => pot(AVR, "B1.5V", "A0", 10_000),
    fix: "capacitor",
  },
];
