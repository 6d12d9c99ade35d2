import { ADAPTER5, AVR, CABLE, make, part, R, USB, type Case, type Links } from "../cases/build";

const apart = (joined: boolean) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part("M1", "module/hc-sr04", {}, { seriesResistor: { ohm: 1000, pin: "TRIG" } }),
      R("R1", 1000),
    ],
    [
      CABLE,
      ["M1.VCC", "S2.5V"],
      ["M1.GND", "S2.GND"],
      ["M1.TRIG", "B1.D8"],
      ["M1.ECHO", "R1.1"],
      ["R1.2", "B1.D2"],
      ...((joined ? [["S2.GND", "B1.GND"]] : []) as Links),
    ],
  );

export const powerGroundNotCommonCases: Case[] = [
  {
    rule: "power.ground-not-common",
    severity: "fault",
    says: "a sensor on its own supply, grounds apart",
    bad: () => apart(false),
    near: () => apart(true),
    fix: "join",
  },
];
