import type { Circuit } from "../../circuit";
import type { PowerLimit } from "../../circuit/power";
import { evaluate } from "../../quantity";
import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";

/** What must be drawn from what a limit is about, so that it stays on, amperes; undefined: it stays on by itself. */
function leastOf(c: Circuit, l: PowerLimit): number | undefined {
  const inst = c.netlist.instance(l.ref);
  const supplies = inst?.part.supplies ?? {};
  // A converter's limit ends with the supply that it makes.
  const s = l.kind === "source" ? Object.values(supplies).find((x) => x.source) : supplies[l.id.split(">").at(-1)!];
  return s?.keeps_mA === undefined ? undefined : evaluate(s.keeps_mA, inst!.vars) / 1000;
}

export const powerKeepsOn: Rule = {
  rule: "power.keeps-on",
  says: "Some supplies switch themselves off when little is drawn from them: what hangs on them must draw more than that, always.",
  check: (c) =>
    c.power.limits.flatMap((l): Found[] => {
      const least = leastOf(c, l);
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
