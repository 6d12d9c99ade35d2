import { part, RP, planned, USB, type Case } from "../cases/build";

const clocked = (clock_Hz: number) =>
  planned([RP, USB, part("M1", "module/st7789")], {
    buses: ["spi0", "spi1"].map((bus) => ({ host: "B1", bus, clock_Hz })),
  });

export const spiClockCases: Case[] = [
  {
    rule: "spi.clock",
    severity: "risk",
    says: "20 MHz over loose leads",
    bad: () => clocked(20_000_000),
    near: () => clocked(4_000_000),
    fix: "slower",
  },
];
