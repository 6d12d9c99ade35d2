import { CABLE, make, part, RP, USB, type Case } from "../cases/build";

const two = (sda: string, scl: string) =>
  make(
    [RP, USB, part("M1", "module/bme280"), part("M2", "module/ssd1306-i2c")],
    [
      CABLE,
      ["M1.VCC", "B1.3V3"],
      ["M1.GND", "B1.GND"],
      ["M1.SDA", "B1.GP4"],
      ["M1.SCL", "B1.GP5"],
      ["M2.VCC", "B1.3V3"],
      ["M2.GND", "B1.GND"],
      ["M2.SDA", `B1.${sda}`],
      ["M2.SCL", `B1.${scl}`],
    ],
  );

export const busSplitCases: Case[] = [
  {
    rule: "pin.bus-split",
    severity: "fault",
    says: "two parts on one I2C controller, each on a pair of pins of its own",
    bad: () => two("GP8", "GP9"),
    near: () => two("GP6", "GP7"),
  },
  {
    rule: "pin.bus-split",
    severity: "fault",
    says: "a shared clock, but the data line of one part elsewhere",
    bad: () => two("GP8", "GP5"),
    near: () => two("GP4", "GP5"),
    fix: "share-",
  },
];
