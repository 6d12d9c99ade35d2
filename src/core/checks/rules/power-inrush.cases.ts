import { CABLE, make, part, AVR, USB, type Case } from "../cases/build";

const closing = (id: string) =>
  make(
    [
      AVR,
      USB,
      { ref: "S2", part: "supply/adapter-5v-2a" },
      part("SW1", id, {}, { pullUp: null }),
      part("C1", "discrete/electrolytic", { capacitance_uF: 2200 }),
      part("M1", "module/servo-small"),
    ],
    [
      CABLE,
      ["S2.5V", "SW1.1"],
      ["SW1.2", "M1.VCC"],
      ["C1.+", "M1.VCC"],
      ["C1.-", "M1.GND"],
      ["M1.GND", "S2.GND"],
      ["S2.GND", "B1.GND"],
      ["M1.SIG", "B1.D9"],
    ],
  );

export const inrushCases: Case[] = [
  {
    rule: "power.inrush",
    severity: "risk",
    says: "a reed contact that closes onto 2200 µF",
    bad: () => closing("discrete/reed"),
    near: () => closing("discrete/limit-switch"),
    also: ["risk contact.rating"],
  },
];
