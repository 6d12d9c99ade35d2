import { ADAPTER5, AVR, CABLE, make, part, USB, type Case, type Links } from "../cases/build";

const pump = (gate: Links) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part("Q1", "discrete/nmos-irlz44n"),
      part("MT1", "discrete/pump-5v", {}, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [CABLE, ["MT1.1", "S2.5V"], ["MT1.2", "Q1.D"], ["Q1.S", "S2.GND"], ["S2.GND", "B1.GND"], ...gate],
  );

export const openInputCases: Case[] = [
  {
    rule: "net.floating",
    severity: "risk",
    says: "a gate with no wire at all",
    bad: () => pump([]),
    near: () => pump([["Q1.G", "S2.GND"]]),
  },
];
