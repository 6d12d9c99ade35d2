import { CABLE, make, part, RP, USB, type Case } from "../cases/build";

const gps = (tx: string, rx: string) =>
  make(
    [RP, USB, part("M1", "module/gps-neo6m")],
    [CABLE, ["M1.VCC", "B1.VBUS"], ["M1.GND", "B1.GND"], ["M1.TX", `B1.${tx}`], ["M1.RX", `B1.${rx}`]],
  );

export const uartNotCrossedCases: Case[] = [
  {
    rule: "uart.not-crossed",
    severity: "fault",
    says: "TX on TX",
    bad: () => gps("GP0", "GP1"),
    near: () => gps("GP1", "GP0"),
    fix: "cross",
  },
];
