import type { Circuit } from "../../circuit";
import { elementsAt, netById, otherEnd } from "../graph";
import { label, round } from "../help";
import type { Found, Fix, Rule } from "../types";
import { type LoadAt, switchesOf } from "../loads";

const flybackFix = (c: Circuit, ref: string): Fix[] =>
  c.project.parts.some((p) => p.ref === ref)
    ? [
        {
          id: "flyback",
          label: `Put a diode across ${label(c, ref)}`,
          edits: [{ type: "setCompanion", ref, key: "flyback", value: { part: "discrete/diode-1n4007" } }],
        },
      ]
    : [];

/** Diodes across a load, each with whether it lets the coil's current circle (and not the supply through). */
function diodesAcross(c: Circuit, l: LoadAt, switched: string) {
  const other = l.el.a === switched ? l.el.b : l.el.a;
  const up = netById(c, other)?.kind !== "ground";
  return elementsAt(c, switched)
    .filter((el) => el.kind === "diode" && otherEnd(el, switched) === other)
    .map((el) => ({ el, right: (el.a === switched) === up }));
}

export const loadNoFlyback: Rule = {
  rule: "load.no-flyback",
  says: "A coil that is switched off drives its current on at any voltage: a diode across it gives that current a way.",
  check: (c) =>
    switchesOf(c).flatMap((s) =>
      s.loads.flatMap((l): Found[] => {
        if (!l.el.inductive) return [];
        const node = [s.el.a, s.el.b].find((id) => id === l.el.a || id === l.el.b)!;
        if (diodesAcross(c, l, node).length) return [];
        return [
          {
            rule: "load.no-flyback",
            severity: "stop",
            at: [l.el.ref, s.el.ref],
            message: `${label(c, l.el.ref)} is a coil switched by ${label(c, s.el.ref)} without a flyback diode: switching off kills the transistor. Do not power this.`,
            evidence: { peak_mA: round(l.A.peak * 1000, 1) },
            fixes: () => flybackFix(c, l.el.ref),
          },
        ];
      }),
    ),
};
