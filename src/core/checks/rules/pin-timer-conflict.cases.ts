import { ADAPTER5, CABLE, make, part, RP, USB, type Case } from "../cases/build";

const tones = (pin: string) =>
  make(
    [
      RP,
      USB,
      ADAPTER5,
      part("M1", "module/servo-small", {}, { bulkCapacitor: { F: 0.00047 } }),
      part("LS1", "module/buzzer-passive"),
    ],
    [
      CABLE,
      ["M1.VCC", "S2.5V"],
      ["M1.GND", "S2.GND"],
      ["S2.GND", "B1.GND"],
      ["M1.SIG", "B1.GP0"],
      ["LS1.VCC", "B1.3V3"],
      ["LS1.GND", "B1.GND"],
      ["LS1.IO", `B1.${pin}`],
    ],
  );

export const pinTimerConflictCases: Case[] = [
  {
    rule: "pin.timer-conflict",
    severity: "risk",
    says: "a note and a servo on one slice",
    bad: () => tones("GP1"),
    near: () => tones("GP2"),
  },
];
