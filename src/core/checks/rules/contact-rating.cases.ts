import { ADAPTER12, AVR, CABLE, make, part, USB, type Case } from "../cases/build";

const motor = (id: string, load_mA: number) =>
  make(
    [
      AVR,
      USB,
      ADAPTER12,
      part("SW1", id, {}, { pullUp: null }),
      part("MT1", "discrete/motor-dc", { load_V: 12, load_mA }, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [CABLE, ["S2.12V", "SW1.1"], ["SW1.2", "MT1.1"], ["MT1.2", "S2.GND"], ["S2.GND", "B1.GND"]],
  );

export const contactRatingCases: Case[] = [
  {
    rule: "contact.rating",
    severity: "stop",
    says: "a motor switched by a small button",
    bad: () => motor("discrete/button", 200),
    near: () => motor("discrete/toggle", 200),
  },
  {
    rule: "contact.rating",
    severity: "stop",
    says: "a motor's start through a reed contact",
    bad: () => motor("discrete/reed", 250),
    near: () => motor("discrete/limit-switch", 250),
  },
];
