import { CABLE, CHARGER, ESP, make, part, type Case } from "../cases/build";

const listeners = (second: string) =>
  make(
    [ESP, CHARGER, part("M1", "module/hc05"), part("M2", "module/gps-neo6m")],
    [
      CABLE,
      ["M1.VCC", "B1.5V"],
      ["M1.GND", "B1.GND"],
      ["M1.RX", "B1.GPIO17"],
      ["M2.VCC", "B1.5V"],
      ["M2.GND", "B1.GND"],
      ["M2.RX", `B1.${second}`],
    ],
  );

export const uartSharedCases: Case[] = [
  {
    rule: "uart.shared",
    severity: "fault",
    says: "a radio link and a receiver on one transmit line",
    bad: () => listeners("GPIO17"),
    near: () => listeners("GPIO27"),
  },
];
