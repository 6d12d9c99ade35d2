import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";
import { resistorFix } from "../currents";

export const currentLed: Rule = {
  rule: "current.led",
  says: "A light has a largest current of its own, whatever the pin can give.",
  check: (c) =>
    c.leds.flatMap((p): Found[] =>
      p.I && p.R > 0 && p.I.max > p.max_A * 1.001
        ? [
            {
              rule: "current.led",
              severity: p.I.max > p.max_A * 1.5 ? "stop" : "risk",
              at: [p.ref],
              message: `${label(c, p.ref)} may get ${mA(p.I.max)}; it takes ${mA(p.max_A)} at most.`,
              evidence: { worst_mA: round(p.I.max * 1000, 1), max_mA: round(p.max_A * 1000, 1), R_ohm: p.R },
              fixes: () => resistorFix(c, p.ref),
            },
          ]
        : [],
    ),
};
