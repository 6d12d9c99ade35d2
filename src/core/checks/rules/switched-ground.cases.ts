import { ADAPTER5, AVR, CABLE, make, part, R, USB, type Case, type Links } from "../cases/build";

/** A strip of lights whose plus or minus wire goes through what is given, its data at the board. */
const strip = (parts: object[], plus: string, minus: string, more: Links, pixels = 8) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part("M1", "module/ws2812b-strip", { pixels }, { bulkCapacitor: { F: 0.001 }, seriesResistor: { ohm: 330 } }),
      ...parts,
    ],
    [CABLE, ["S2.GND", "B1.GND"], ["M1.DIN", "B1.D6"], ["M1.5V", plus], ["M1.GND", minus], ...more],
  );
const toggle = [part("SW1", "discrete/toggle")];
const reed = [part("SW1", "discrete/reed")];

export const switchedGroundCases: Case[] = [
  {
    rule: "power.ground-not-common",
    severity: "risk",
    says: "a strip switched off by a contact in its ground wire while its data stays connected",
    bad: () => strip(toggle, "S2.5V", "SW1.1", [["SW1.2", "S2.GND"]], 5),
    near: () => strip([], "S2.5V", "S2.GND", [], 5),
    also: ["risk power.inrush"],
  },
  {
    rule: "contact.rating",
    severity: "stop",
    says: "a reed contact for half an ampere in the ground wire of 1.8 A",
    bad: () => strip(reed, "S2.5V", "SW1.1", [["SW1.2", "S2.GND"]], 25),
    near: () => strip([], "S2.5V", "S2.GND", [], 25),
    also: ["risk power.ground-not-common", "risk power.inrush"],
  },
  {
    rule: "load.switch-limit",
    severity: "stop",
    says: "a small transistor in the ground wire of a strip of lights",
    bad: () =>
      strip(
        [part("Q1", "discrete/npn-2n2222"), R("R1", 330)],
        "S2.5V",
        "Q1.C",
        [
          ["Q1.E", "S2.GND"],
          ["B1.D7", "R1.1"],
          ["R1.2", "Q1.B"],
        ],
        25,
      ),
    near: () => strip([], "S2.5V", "S2.GND", [], 25),
    also: ["risk power.ground-not-common", "fault load.base-drive"],
  },
];
