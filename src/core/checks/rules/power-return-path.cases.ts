import { ADAPTER12, ADAPTER5, AVR, CABLE, make, part, RP, USB, type Case, type Links } from "../cases/build";

const pump = (joined: Links) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part("Q1", "discrete/nmos-irlz44n", {}, { seriesResistor: { ohm: 220 }, pullDown: { ohm: 10_000 } }),
      part("MT1", "discrete/pump-5v", {}, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [CABLE, ["MT1.1", "S2.5V"], ["MT1.2", "Q1.D"], ["Q1.S", "B1.GND"], ["Q1.G", "B1.D7"], ...joined],
  );
const fan = (joined: Links) =>
  make(
    [RP, USB, ADAPTER12, part("D1", "discrete/led-white", {}, { seriesResistor: { ohm: 1000 } })],
    [CABLE, ["D1.A", "S2.12V"], ["D1.K", "B1.GND"], ...joined],
  );

export const returnPathCases: Case[] = [
  {
    rule: "power.ground-not-common",
    severity: "fault",
    says: "a pump on an adapter whose current should return through the board alone",
    bad: () => pump([]),
    near: () => pump([["S2.GND", "B1.GND"]]),
    fix: "join",
  },
  {
    rule: "power.ground-not-common",
    severity: "fault",
    says: "a light from 12 V to the board's ground, grounds apart",
    bad: () => fan([]),
    near: () => fan([["S2.GND", "B1.GND"]]),
    fix: "join",
  },
];
