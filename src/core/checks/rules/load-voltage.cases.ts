import { AVR, CABLE, make, part, USB, type Case } from "../cases/build";
import { bench } from "../cases/currents";

const withBench = (V: number) => {
  const board = make(
    [
      AVR,
      USB,
      bench(V),
      part("Q1", "discrete/nmos-irlz44n", {}, { seriesResistor: { ohm: 330 }, pullDown: { ohm: 10_000 } }),
      part("MT1", "discrete/motor-dc", { load_V: 6, load_mA: 150 }, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [CABLE, ["MT1.1", "S2.+"], ["MT1.2", "Q1.D"], ["Q1.S", "S2.-"], ["S2.-", "B1.GND"], ["Q1.G", "B1.D7"]],
  );
  return board;
};

export const loadVoltageCases: Case[] = [
  {
    rule: "load.voltage",
    severity: "stop",
    says: "a 6 V motor on 24 V",
    bad: () => withBench(24),
    near: () => withBench(6),
  },
];
