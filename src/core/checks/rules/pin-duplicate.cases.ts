import { AVR, CABLE, led, make, part, USB, type Case } from "../cases/build";

const two = (a: string, b: string) =>
  make(
    [AVR, USB, led("D1", 470), led("D2", 470)],
    [CABLE, ["D1.A", `B1.${a}`], ["D1.K", "B1.GND"], ["D2.A", `B1.${b}`], ["D2.K", "B1.GND"]],
  );

const echoes = (second: string) =>
  make(
    [AVR, USB, part("M1", "module/hc-sr04"), part("M2", "module/hc-sr04")],
    [
      CABLE,
      ["M1.VCC", "B1.5V"],
      ["M1.GND", "B1.GND"],
      ["M1.TRIG", "B1.D8"],
      ["M1.ECHO", "B1.D2"],
      ["M2.VCC", "B1.5V"],
      ["M2.GND", "B1.GND"],
      ["M2.TRIG", "B1.D9"],
      ["M2.ECHO", `B1.${second}`],
    ],
  );

export const pinDuplicateCases: Case[] = [
  {
    rule: "pin.duplicate",
    severity: "fault",
    says: "two lights on one pin",
    bad: () => two("D7", "D7"),
    near: () => two("D7", "D8"),
    fix: "move-pin",
  },
  {
    rule: "pin.duplicate",
    severity: "stop",
    says: "two echo lines on one pin",
    bad: () => echoes("D2"),
    near: () => echoes("D3"),
    also: ["stop net.contention"],
  },
];
