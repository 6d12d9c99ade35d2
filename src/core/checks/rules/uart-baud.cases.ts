import { make, part, type Case } from "../cases/build";

const CHIP = (clock_Hz: string) => ({
  ref: "B1",
  part: "chip/atmega328p-dip28",
  options: { clock_Hz },
  companions: { decoupling: { F: 1e-7 } },
});

const serial = (clock: string, baud: string) =>
  make(
    [CHIP(clock), { ref: "S1", part: "supply/adapter-5v-2a" }, part("M1", "module/usb-uart-5v", { baud })],
    [
      ["S1.5V", "B1.VCC"],
      ["S1.5V", "B1.AVCC"],
      ["S1.GND", "B1.GND"],
      ["S1.GND", "B1.GND.2"],
      ["M1.GND", "S1.GND"],
      ["M1.TX", "B1.PD0"],
      ["M1.RX", "B1.PD1"],
    ],
  );

export const uartBaudCases: Case[] = [
  {
    rule: "uart.baud",
    severity: "fault",
    says: "115200 baud from the chip's own oscillator",
    bad: () => serial("8000000", "115200"),
    near: () => serial("16000000", "9600"),
  },
  {
    rule: "uart.baud",
    severity: "risk",
    says: "9600 baud from the chip's own oscillator",
    bad: () => serial("8000000", "9600"),
    near: () => serial("16000000", "9600"),
    fix: "crystal",
  },
];
