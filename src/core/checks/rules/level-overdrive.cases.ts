import { AVR, CABLE, make, RP, planned, part, USB, type Case, type Links } from "../cases/build";
import { echo, one } from "../cases/levels";

const shower: Links = [
  CABLE,
  ["M1.VCC", "B1.3V3"],
  ["M1.GND", "B1.GND"],
  ["M1.SDA", "B1.GP4"],
  ["M1.SCL", "B1.GP5"],
  ["M2.GND", "B1.GND"],
  ["M2.SDA", "B1.GP4"],
  ["M2.SCL", "B1.GP5"],
];

const clock = (rail: string) =>
  make([RP, USB, part("M1", "module/bme280"), part("M2", "module/ds3231")], [...shower, ["M2.VCC", rail]]);

export const levelOverdriveCases: Case[] = [
  {
    rule: "level.overdrive",
    severity: "stop",
    says: "a 5 V echo into a 3.3 V board",
    bad: () => echo(RP),
    near: () => echo(AVR),
    fix: "divider",
  },
  {
    rule: "level.overdrive",
    severity: "stop",
    says: "a colour display of 3.3 V on a 5 V board",
    bad: () => one(AVR, "module/st7735"),
    near: () => one(RP, "module/st7735"),
    fix: "buffers",
  },
  {
    rule: "level.overdrive",
    severity: "stop",
    says: "a clock at 5 V lifts a shared bus of 3.3 V parts",
    bad: () => clock("B1.VBUS"),
    near: () => clock("B1.3V3"),
    fix: "logic-supply",
  },
  {
    rule: "level.overdrive",
    severity: "stop",
    says: "a 5 V text display on a 3.3 V bus",
    bad: () => planned([RP, USB, part("M1", "module/lcd1602-i2c"), part("M2", "module/sht31")]),
    near: () => planned([RP, USB, part("M1", "module/ssd1306-i2c"), part("M2", "module/sht31")]),
    fix: "shifter",
  },
];
