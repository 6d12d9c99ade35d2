import { part, type Case } from "../cases/build";
import { bus3 } from "../cases/buses";

export const i2cCapacitanceCases: Case[] = [
  {
    rule: "i2c.capacitance",
    severity: "fault",
    says: "four metres of bus",
    bad: () => bus3([{ ...part("M1", "module/ssd1306-i2c"), wire_cm: 400 }]),
    near: () => bus3([{ ...part("M1", "module/ssd1306-i2c"), wire_cm: 100 }]),
    fix: "shorten",
  },
];
