import { AVR, CABLE, ESP, make, part, RP, USB, type Case, type Links } from "../cases/build";

const bus = (board: object, sda: string, scl: string, rail: string, extra: Links) =>
  make(
    [board, USB, part("M1", "module/bme280")],
    [CABLE, ["M1.VCC", `B1.${rail}`], ["M1.GND", "B1.GND"], ["M1.SDA", `B1.${sda}`], ["M1.SCL", `B1.${scl}`], ...extra],
  );
const button = (extra: Links) =>
  make(
    [AVR, USB, part("SW1", "discrete/button", {}, { pullUp: "internal" })],
    [CABLE, ["SW1.1", "B1.D4"], ["SW1.2", "B1.GND"], ...extra],
  );

export const stuckCases: Case[] = [
  ...(
    [
      [RP, "GP4", "GP5", "3V3", "M1.SDA", "GND"],
      [RP, "GP4", "GP5", "3V3", "M1.SCL", "3V3"],
      [ESP, "GPIO21", "GPIO22", "3V3", "M1.SDA", "3V3"],
    ] as const
  ).map(([board, sda, scl, rail, end, to]): Case => ({
    rule: "net.stuck",
    severity: "fault",
    says: `a bus line, ${end} of ${sda} and ${scl}, that is also wired to ${to}`,
    bad: () => bus(board, sda, scl, rail, [[end, `B1.${to}`]]),
    near: () => bus(board, sda, scl, rail, []),
    fix: "remove-wire",
  })),
  {
    rule: "net.stuck",
    severity: "fault",
    says: "a button whose both legs are at ground",
    bad: () => button([["B1.D4", "B1.GND"]]),
    near: () => button([]),
  },
];
