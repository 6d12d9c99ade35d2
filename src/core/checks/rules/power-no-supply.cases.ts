import { AVR, CABLE, make, part, RP, planned, USB, type Case } from "../cases/build";

const air = (vcc: string) =>
  make(
    [RP, USB, part("M1", "module/bme280")],
    [CABLE, ["M1.VCC", vcc], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP5"]],
  );

export const powerNoSupplyCases: Case[] = [
  {
    rule: "power.no-supply",
    severity: "fault",
    says: "a board nothing feeds",
    bad: () => make([AVR], []),
    near: () => make([AVR, USB], [CABLE]),
    fix: "usb-port",
  },
  {
    rule: "power.no-supply",
    severity: "fault",
    says: "a sensor that hangs on a signal pin",
    bad: () => air("B1.GP2"),
    near: () => air("B1.3V3"),
    fix: "logic-supply",
  },
  {
    rule: "power.no-supply",
    severity: "fault",
    says: "a motor driver without its motor supply",
    bad: () => planned([RP, USB, part("M1", "module/l298n")]),
    near: () => planned([RP, USB, part("S2", "supply/adapter-9v-1a"), part("M1", "module/l298n")]),
    fix: "adapter",
  },
];
