import { CABLE, ESP, make, part, USB, type Case } from "../cases/build";

const air = (sda: string, scl: string) =>
  make(
    [ESP, USB, part("M1", "module/bme280")],
    [CABLE, ["M1.VCC", "B1.3V3"], ["M1.GND", "B1.GND"], ["M1.SDA", `B1.${sda}`], ["M1.SCL", `B1.${scl}`]],
  );

export const pinStrappingCases: Case[] = [
  {
    rule: "pin.strapping",
    severity: "fault",
    says: "a bus with pull-ups on the pin that chooses the flash voltage",
    bad: () => air("GPIO12", "GPIO22"),
    near: () => air("GPIO21", "GPIO22"),
  },
];
