import { AVR, CABLE, make, part, USB, type Case } from "../cases/build";

const bridge = (output_V: number) =>
  make(
    [
      AVR,
      USB,
      { ref: "S2", part: "supply/bench", options: { output_V, limit_mA: 4000 } },
      part("M1", "module/l298n"),
      part("MT1", "discrete/motor-dc", { load_V: 12, load_mA: 300 }, { flyback: null }),
    ],
    [
      CABLE,
      ["M1.12V", "S2.+"],
      ["M1.GND", "S2.-"],
      ["S2.-", "B1.GND"],
      ["M1.ENB", "S2.-"],
      ["M1.IN3", "S2.-"],
      ["M1.IN4", "S2.-"],
      ["M1.ENA", "B1.D9"],
      ["M1.IN1", "B1.D7"],
      ["M1.IN2", "B1.D8"],
      ["M1.OUT1", "MT1.1"],
      ["M1.OUT2", "MT1.2"],
    ],
  );

export const driverLossCases: Case[] = [
  {
    rule: "load.driver-loss",
    severity: "risk",
    says: "a 12 V motor behind a bridge on 9 V that keeps three of them",
    bad: () => bridge(9),
    near: () => bridge(11.8),
  },
];
