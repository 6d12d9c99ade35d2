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

/** A short strip whose ground goes through a small contact, or straight back. */
const inGround = (plus: string, minus: string, more: [string, string][]) =>
  make(
    [
      AVR,
      USB,
      { ref: "S2", part: "supply/adapter-5v-2a" },
      part("M1", "module/ws2812b-strip", { pixels: 4 }, { bulkCapacitor: { F: 0.001 }, seriesResistor: { ohm: 330 } }),
      ...(more.length ? [part("SW1", "discrete/button", {}, { pullUp: null })] : []),
    ],
    [CABLE, ["S2.GND", "B1.GND"], ["M1.DIN", "B1.D6"], ["M1.5V", plus], ["M1.GND", minus], ...more],
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
  {
    rule: "power.inrush",
    severity: "risk",
    says: "a button in the ground wire of a strip with its reservoir",
    bad: () => inGround("S2.5V", "SW1.1", [["SW1.2", "S2.GND"]]),
    near: () => inGround("S2.5V", "S2.GND", []),
    also: ["risk power.ground-not-common", "stop contact.rating"],
  },
];
