import { CABLE, make, RP, USB, type Case } from "../cases/build";

const wired = (id: string, more: object = {}, links: [string, string][] = []) =>
  make(
    [RP, USB, { ref: "M1", part: id, ...more }],
    [CABLE, ["M1.VCC", "B1.3V3"], ["M1.GND", "B1.GND"], ["M1.SCL", "B1.GP5"], ["M1.SDA", "B1.GP4"], ...links],
  );

export const partPrintCases: Case[] = [
  {
    rule: "part.print",
    severity: "risk",
    says: "a display that is sold with ground first and with supply first",
    bad: () => wired("module/ssd1306-i2c", { print: undefined }),
    near: () => wired("module/ssd1306-i2c", { print: { id: "b" } }),
    fix: "print-a",
  },
  {
    rule: "part.print",
    severity: "risk",
    says: "a header that is only assumed, against an order of one's own",
    bad: () => wired("module/scd41", { print: undefined }),
    near: () => wired("module/scd41", { print: { rows: [["GND", "VDD", "SDA", "SCL"]] } }),
  },
  {
    rule: "part.print",
    severity: "fault",
    says: "a wire to a pin that the confirmed header has not",
    bad: () => wired("module/bme280", { print: { id: "a" } }, [["M1.CSB", "B1.3V3"]]),
    near: () => wired("module/bme280", { print: { id: "c" } }, [["M1.CSB", "B1.3V3"]]),
    fix: "unwire",
  },
];
