import { AVR, make, part, type Case } from "../cases/build";

const panel = part("S1", "supply/solar-panel", { panel_V: 9, panel_mA: 500 });
const buck = part("M1", "module/buck-adjustable", { output_V: 5 });

export const powerSunCases: Case[] = [
  {
    rule: "power.sun",
    severity: "risk",
    says: "a board that only a panel feeds",
    bad: () =>
      make(
        [AVR, panel, buck],
        [
          ["S1.+", "M1.IN+"],
          ["S1.-", "M1.IN-"],
          ["M1.OUT+", "B1.5V"],
          ["M1.OUT-", "B1.GND"],
        ],
      ),
    near: () =>
      make(
        [
          AVR,
          panel,
          buck,
          part("M2", "module/charger-1s", { charge_mA: 400 }),
          part("S2", "supply/li-ion-1s"),
          part("M3", "module/boost-adjustable"),
        ],
        [
          ["S1.+", "M1.IN+"],
          ["S1.-", "M1.IN-"],
          ["M1.OUT+", "M2.IN+"],
          ["M1.OUT-", "M2.IN-"],
          ["S2.+", "M2.B+"],
          ["S2.-", "M2.B-"],
          ["M2.OUT+", "M3.IN+"],
          ["M2.OUT-", "M3.IN-"],
          ["M3.OUT+", "B1.5V"],
          ["M3.OUT-", "B1.GND"],
        ],
      ),
  },
];
