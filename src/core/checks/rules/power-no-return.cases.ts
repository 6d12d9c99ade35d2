import { ADAPTER5, AVR, CABLE, ESP, make, part, USB, type Case, type Links } from "../cases/build";

const pump = (board: object, pin: string, source: Links) =>
  make(
    [
      board,
      USB,
      ADAPTER5,
      part("Q1", "discrete/nmos-ao3400", {}, { seriesResistor: { ohm: 220 }, pullDown: { ohm: 10_000 } }),
      part("MT1", "discrete/pump-5v", {}, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [CABLE, ["MT1.1", "S2.5V"], ["MT1.2", "Q1.D"], ["S2.GND", "B1.GND"], ["Q1.G", pin], ...source],
  );
const relay = (back: Links) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part("K1", "module/relay-1"),
      part("MT1", "discrete/pump-5v", {}, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [
      CABLE,
      ["K1.VCC", "B1.5V"],
      ["K1.GND", "B1.GND"],
      ["K1.IN", "B1.D7"],
      ["S2.GND", "B1.GND"],
      ["MT1.1", "S2.5V"],
      ["MT1.2", "K1.COM"],
      ...back,
    ],
  );

export const noReturnCases: Case[] = [
  ...([AVR, ESP] as const).map((board, i): Case => ({
    rule: "power.no-ground",
    severity: "fault",
    says: `a pump whose transistor's source leads nowhere, ${i ? "on a radio board" : "on a 5 V board"}`,
    bad: () => pump(board, i ? "B1.GPIO23" : "B1.D7", []),
    near: () => pump(board, i ? "B1.GPIO23" : "B1.D7", [["Q1.S", "S2.GND"]]),
  })),
  {
    rule: "power.no-ground",
    severity: "fault",
    says: "a pump whose relay contact leads nowhere",
    bad: () => relay([]),
    near: () => relay([["K1.NO", "S2.GND"]]),
  },
];
