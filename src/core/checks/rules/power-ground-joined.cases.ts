import { ADAPTER5, AVR, CABLE, make, part, USB, type Case, type Links } from "../cases/build";

const isolator = (joined: boolean) =>
  make(
    [AVR, USB, ADAPTER5, part("M1", "module/isolator-2ch", {}, { decoupling: { F: 1e-7 } })],
    [
      CABLE,
      ["M1.VCC1", "B1.5V"],
      ["M1.GND1", "B1.GND"],
      ["M1.VCC2", "S2.5V"],
      ["M1.GND2", "S2.GND"],
      ...((joined ? [["S2.GND", "B1.GND"]] : []) as Links),
    ],
  );

export const powerGroundJoinedCases: Case[] = [
  {
    rule: "power.ground-joined",
    severity: "stop",
    says: "both sides of an isolator on one ground",
    bad: () => isolator(true),
    near: () => isolator(false),
    fix: "part",
  },
];
