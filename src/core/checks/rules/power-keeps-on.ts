import type { Circuit } from "../../circuit";
import { sourcesOn, type PowerLimit } from "../../circuit/power";
import { evaluate } from "../../quantity";
import { netById } from "../graph";
import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";

/** The supply of a part that a limit is about. */
function supplyOf(c: Circuit, l: PowerLimit) {
  const inst = c.netlist.instance(l.ref);
  if (!inst) return undefined;
  const net = netById(c, l.net);
  const key =
    l.kind === "source"
      ? net &&
        Object.keys(inst.part.supplies).find((k) =>
          sourcesOn(c.netlist, net).some((s) => s.source === inst.part.supplies[k]!.source),
        )
      : l.id.split(">").at(-1);
  const s = key === undefined ? undefined : inst.part.supplies[key];
  return s?.keeps_mA === undefined ? undefined : evaluate(s.keeps_mA, inst.vars) / 1000;
}

export const powerKeepsOn: Rule = {
  rule: "power.keeps-on",
  says: "Some supplies switch themselves off when little is drawn from them: what hangs on them must draw more than that, always.",
  check: (c) =>
    c.power.limits.flatMap((l): Found[] => {
      const least = supplyOf(c, l);
      if (least === undefined || !(l.flow.typ > 0) || l.flow.idle >= least) return [];
      const always = l.flow.typ < least;
      return [
        {
          rule: "power.keeps-on",
          severity: always ? "risk" : "note",
          at: [l.ref],
          message: `${label(c, l.ref)} switches itself off when less than ${mA(least)} is drawn for a while; ${always ? `this project draws ${mA(l.flow.typ)}` : `idle, this project draws ${mA(l.flow.idle)}`}: it goes dark after half a minute${always ? "" : " of rest"}. Take a supply without a shut-off.`,
          evidence: {
            least_mA: round(least * 1000, 0),
            typical_mA: round(l.flow.typ * 1000, 1),
            idle_mA: round(l.flow.idle * 1000, 1),
          },
          fixes: [],
        },
      ];
    }),
};
