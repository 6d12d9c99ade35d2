import { CABLE, CHARGER, ESP, make, part, RP, USB, type Case } from "../cases/build";

const moves = (board: object, vcc: string, pin: string) =>
  make(
    [board, CHARGER, part("M1", "module/pir")],
    [CABLE, ["M1.VCC", vcc], ["M1.GND", "B1.GND"], ["M1.OUT", `B1.${pin}`]],
  );

const sensor = (rail: string) =>
  make(
    [RP, USB, part("M1", "module/bme280")],
    [CABLE, ["M1.VCC", rail], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP5"]],
  );

export const powerRangeCases: Case[] = [
  {
    rule: "power.range",
    severity: "fault",
    says: "a 5 V sensor on 3.3 V",
    bad: () => moves(RP, "B1.3V3", "GP2"),
    near: () => moves(RP, "B1.VBUS", "GP2"),
  },
  {
    rule: "power.range",
    severity: "risk",
    says: "a 5 V sensor behind a board's diode, when the charger is low",
    bad: () => moves(ESP, "B1.5V", "GPIO4"),
    near: () => moves(RP, "B1.VBUS", "GP2"),
  },
  {
    rule: "power.range",
    severity: "stop",
    says: "a 3.3 V sensor on 5 V",
    bad: () => sensor("B1.VBUS"),
    near: () => sensor("B1.3V3"),
    also: ["stop level.overdrive"],
    fix: "other-rail",
  },
];
