import type { Circuit } from "../../circuit";
import { elementsAt, netById, otherEnd } from "../graph";
import { label } from "../help";
import type { Found, Rule } from "../types";
import { wanting, capacitorFix } from "../capacitors";

const count = (c: Circuit, net: string, least: number) =>
  elementsAt(c, net).filter(
    (e) => e.kind === "capacitor" && netById(c, otherEnd(e, net))?.kind === "ground" && (e.F ?? 0) >= least,
  ).length;

/** Down to this a capacitor still counts as the fast one at a chip. */
const FAST_F = 40e-9;

export const powerDecoupling: Rule = {
  rule: "power.decoupling",
  says: "A bare chip takes its current in nanosecond sips: 100 nF right at each of its supply pins.",
  check: (c) => {
    const all = wanting(c, "decoupling");
    const perNet = new Map<string, number>();
    // A capacitor that was put in for a part is that part's; the others are shared out.
    const served = new Set(
      [...c.netlist.expanded.instances.values()].flatMap((i) =>
        i.inserted?.key === "decoupling" ? [i.inserted.by] : [],
      ),
    );
    const own = (net: string) => all.filter((x) => x.net.id === net && served.has(x.inst.ref)).length;
    return all.flatMap(({ inst, rule, net }): Found[] => {
      if (served.has(inst.ref)) return [];
      const used = perNet.get(net.id) ?? 0;
      perNet.set(net.id, used + 1);
      if (count(c, net.id, FAST_F) - own(net.id) > used) return [];
      return [
        {
          rule: "power.decoupling",
          severity: rule.needed === "required" ? "risk" : "note",
          at: [inst.ref],
          message: `${label(c, inst.ref)} has no capacitor of its own at ${rule.pin}: ${rule.because}.`,
          evidence: { wanted_nF: 100 },
          fixes: () => capacitorFix(c, inst.ref, "decoupling"),
        },
      ];
    });
  },
};
