import type { LedPath } from "../../circuit/solve";
import { label, round } from "../help";
import type { Found, Rule } from "../types";
import { resistorFix } from "../currents";

const pathPins = (p: LedPath) => [p.high, p.low].flatMap((e) => (e.kind === "pin" ? [e.end] : []));

export const ledNoResistor: Rule = {
  rule: "led.no-resistor",
  says: "An LED without a resistor takes whatever the supply gives until it or the pin fails.",
  check: (c) =>
    c.leds
      .filter((p) => p.I && p.R === 0 && p.V && p.V.max > p.Vf.min)
      .map((p): Found => ({
        rule: "led.no-resistor",
        severity: "stop",
        at: [p.ref, ...pathPins(p).map((e) => `${e.ref}.${e.pin}`)],
        message: `${label(c, p.ref)} has no series resistor: ${p.V!.typ.toFixed(1)} V drives a ${p.Vf.typ.toFixed(1)} V light with nothing to limit the current.`,
        evidence: { supply_V: round(p.V!.typ), Vf_V: round(p.Vf.typ), R_ohm: 0 },
        fixes: () => resistorFix(c, p.ref),
      })),
};
