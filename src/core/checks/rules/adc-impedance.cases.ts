import { AVR, part, planned, USB, type Case } from "../cases/build";
import { pot } from "../cases/buses";

/** Three knobs behind the switches of one board's only converter. */
const knobs = (chip: "cd" | "hc") =>
  planned([
    part("B1", "board/esp8266-mini"),
    USB,
    part("M1", "module/cd4067", { chip }),
    ...[1, 2, 3].map((n) => part(`R${n}`, "discrete/potentiometer", { resistance_ohm: n === 1 ? 36_000 : 10_000 })),
  ]);

export const adcImpedanceCases: Case[] = [
  {
    rule: "adc.impedance",
    severity: "risk",
    says: "a 100 kΩ potentiometer",
    bad: () => pot(AVR, "B1.5V", "A0", 100_000),
    near: () => pot(AVR, "B1.5V", "A0", 10_000),
    fix: "capacitor",
  },
  {
    rule: "adc.impedance",
    severity: "risk",
    says: "a knob that is all right by itself, behind a switch that adds to it; the faster switch adds little",
    bad: () => knobs("cd"),
    near: () => knobs("hc"),
    fix: "capacitor",
  },
];
