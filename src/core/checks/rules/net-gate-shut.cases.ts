import { CABLE, make, moved, part, planned, RP, USB, type Case, type Links } from "../cases/build";

const line = (de: string | null, re: string | null, companions: object = {}) =>
  make(
    [RP, USB, { ref: "M1", part: "module/max3485", companions: { termination: null, ...companions } }],
    [
      CABLE,
      ["M1.VCC", "B1.3V3"],
      ["M1.GND", "B1.GND"],
      ["M1.RO", "B1.GP1"],
      ["M1.DI", "B1.GP0"],
      ...(de ? ([["M1.DE", `B1.${de}`]] satisfies Links) : []),
      ...(re ? ([["M1.RE", `B1.${re}`]] satisfies Links) : []),
    ],
  );
const expander = () => planned([RP, USB, part("M1", "module/mcp23017"), part("M2", "module/bme280")]);
const sensor = (id: string, pin: string, to: string) =>
  make(
    [RP, USB, part("M1", id)],
    [
      CABLE,
      ["M1.VCC", "B1.3V3"],
      ["M1.GND", "B1.GND"],
      ["M1.SDA", "B1.GP4"],
      ["M1.SCL", "B1.GP5"],
      [`M1.${pin}`, `B1.${to}`],
    ],
  );

export const gateShutCases: Case[] = [
  {
    rule: "net.gate-shut",
    severity: "fault",
    says: "a line driver whose transmitter is tied off, and its data wired",
    bad: () => line("GND", "GP3"),
    near: () => line("GP2", "GP3"),
  },
  {
    rule: "net.gate-shut",
    severity: "fault",
    says: "a line driver whose receiver is tied off",
    bad: () => line("GP2", "3V3"),
    near: () => line("GP2", "GND"),
  },
  {
    rule: "net.gate-shut",
    severity: "risk",
    says: "a line driver that never lets go of its pair, and waits for answers",
    bad: () => line("3V3", "GP3"),
    near: () => line("GP2", "GP3"),
  },
  {
    rule: "net.gate-shut",
    severity: "fault",
    says: "an expander that stays in its reset",
    bad: () => moved(expander(), "M1.RESET", "B1.GND"),
    near: expander,
  },
  {
    rule: "net.gate-shut",
    severity: "fault",
    says: "a distance sensor held off",
    bad: () => sensor("module/vl53l0x", "XSHUT", "GND"),
    near: () => sensor("module/vl53l0x", "XSHUT", "3V3"),
  },
];
