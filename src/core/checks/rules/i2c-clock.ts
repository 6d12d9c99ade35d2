import { i2cBuses } from "../../circuit/buses";
import { label } from "../help";
import type { Found, Rule } from "../types";
import { setClock } from "../i2c";

export const i2cClock: Rule = {
  rule: "i2c.clock",
  says: "The slowest part of a bus sets its clock.",
  check: (c) =>
    i2cBuses(c).flatMap((b): Found[] => {
      if (!b.slowest || b.clock_Hz <= b.slowest.max_Hz) return [];
      return [
        {
          rule: "i2c.clock",
          severity: "fault",
          at: [`${b.slowest.ref}.${b.slowest.scl}`],
          message: `The bus shall run at ${b.clock_Hz / 1000} kHz; ${label(c, b.slowest.ref)} goes up to ${b.slowest.max_Hz / 1000} kHz.`,
          evidence: { clock_kHz: b.clock_Hz / 1000, most_kHz: b.slowest.max_Hz / 1000 },
          fixes: setClock(b, b.slowest.max_Hz, `Run the bus at ${b.slowest.max_Hz / 1000} kHz`),
        },
      ];
    }),
};
