import { CABLE, make, part, RP, USB, type Case } from "../cases/build";
import { stage, bench } from "../cases/currents";

const weak = (mA: number) =>
  stage({
    q: "discrete/nmos-ao3400",
    legs: ["G", "D", "S"],
    supply: { ref: "S2", part: "supply/adapter-5v-10a" },
    load: part("MT1", "discrete/pump-5v", { load_mA: mA }),
  });

/** A solenoid that holds at so many milliamperes behind the small MOSFET. */
const warm = (load_mA: number) =>
  make(
    [
      RP,
      USB,
      bench(12, 5000),
      part("Q1", "discrete/nmos-ao3400", {}, { seriesResistor: { ohm: 470 }, pullDown: { ohm: 10_000 } }),
      part("MT1", "discrete/solenoid", { load_V: 12, load_mA }, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [CABLE, ["MT1.1", "S2.+"], ["MT1.2", "Q1.D"], ["Q1.S", "S2.-"], ["S2.-", "B1.GND"], ["Q1.G", "B1.GP7"]],
  );

export const loadSwitchLimitCases: Case[] = [
  {
    rule: "load.switch-limit",
    severity: "stop",
    says: "six amperes through a small MOSFET",
    bad: () => weak(2000),
    near: () => weak(1200),
    also: [],
  },
  {
    rule: "load.switch-limit",
    severity: "risk",
    says: "three lasting amperes through a tiny MOSFET",
    bad: () => warm(3000),
    near: () => warm(2000),
  },
];
