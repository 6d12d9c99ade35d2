import type { Circuit } from "../../circuit";
import { formatOhm, nextUp } from "../../quantity";
import { label, mA, round } from "../help";
import { switchesOf } from "../loads";
import { levelRest } from "../rests";
import type { Found, Fix, Rule } from "../types";
import { type PinLoad, pinLoads, resistorFix, lessCurrent } from "../currents";

export const currentPin: Rule = {
  rule: "current.pin",
  says: "A pin has a current that is good for it and one that may never be passed.",
  check: (c) =>
    [...pinLoads(c)].flatMap(([key, s]): Found[] => {
      const I = Math.max(s.source_A, s.sink_A);
      const limits = c.netlist.level(s.ref, s.pin)?.pin_mA;
      if (!limits || I * 1000 <= limits.recommended) return [];
      const stop = limits.absMax !== undefined && I * 1000 > limits.absMax;
      const most = limits.absMax === undefined ? "" : ` (absolute maximum ${limits.absMax} mA)`;
      return [
        {
          rule: "current.pin",
          severity: stop ? "stop" : "risk",
          at: [key, ...s.refs],
          message: `${key} may have to carry ${mA(I)}; ${stop ? `its absolute maximum is ${limits.absMax} mA. Do not power this.` : `${limits.recommended} mA is recommended${most}.`}`,
          evidence: {
            worst_mA: round(I * 1000, 1),
            recommended_mA: limits.recommended,
            ...(limits.absMax !== undefined && { absMax_mA: limits.absMax }),
          },
          rests: levelRest(c, s, "pin_mA"),
          fixes: s.paths
            .flatMap((p) => [...resistorFix(c, p.ref), ...lessCurrent(c, p, limits.recommended)])
            .concat(s.paths.length ? [] : baseFix(c, s, limits.recommended))
            .slice(0, 2),
        },
      ];
    }),
};

/** A base resistor that keeps a pin within what it likes. */
function baseFix(c: Circuit, s: PinLoad, limit_mA: number): Fix[] {
  const q = switchesOf(c).find((x) => s.refs.includes(x.el.ref) && x.gate);
  if (!q?.gate || q.def.kind !== "bjt" || !c.project.parts.some((p) => p.ref === q.el.ref)) return [];
  const ohm = nextUp(
    (q.gate.V.max - Number(q.def.Vbe.min)) / (limit_mA / 1000) / 0.95,
    "E12",
    c.project.drawer.resistors_ohm,
  );
  return [
    {
      id: "base-resistor",
      label: `Put ${formatOhm(ohm)} at the base of ${label(c, q.el.ref)}`,
      edits: [{ type: "setCompanion", ref: q.el.ref, key: "seriesResistor", value: { ohm } }],
    },
  ];
}
