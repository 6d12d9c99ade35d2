import { evaluate } from "../../quantity";
import { label, round } from "../help";
import type { Found, Rule } from "../types";

/** Of an amplifier's span, a bridge at full load that uses less than this wastes steps. */
const SMALL_SHARE = 0.08;

/** Gauges in a bridge against the amplifier that they hang on: both go by their feed, so only their shares of it count. */
export const bridgeRange: Rule = {
  rule: "bridge.range",
  says: "A bridge gives some thousandths of its feed at full load; the amplifier must take as much, and should not take far more.",
  check: (c) => {
    const pairs = new Map<string, { ref: string; host: string }>();
    for (const b of c.netlist.bindings)
      if (b.need.kind === "bridge") pairs.set(`${b.ref} ${b.host}`, { ref: b.ref, host: b.host });
    return [...pairs.values()].flatMap(({ ref, host }): Found[] => {
      const [cell, amp] = [c.netlist.instance(ref), c.netlist.instance(host)];
      const [gives, takes] = [cell?.part.bridge, amp?.part.bridge];
      if (!cell || gives?.is !== "sensor" || takes?.is !== "amplifier") return [];
      const [most, full] = [evaluate(gives.mV_per_V, cell.vars), evaluate(gives.full, cell.vars)];
      const share = most / takes.full_mV_per_V;
      if (share <= 1 && share >= SMALL_SHARE) return [];
      const ends = full / share;
      return [
        {
          rule: "bridge.range",
          severity: share > 1 ? "fault" : "note",
          at: [ref, host],
          message:
            share > 1
              ? `${label(c, ref)} gives ${round(most, 2)} mV/V at ${full} ${gives.unit}, but ${label(c, host)} is full at ${takes.full_mV_per_V} mV/V: above ${round(ends, 2)} ${gives.unit} it always tells the same.`
              : `${label(c, ref)} gives only ${round(most, 2)} mV/V at ${full} ${gives.unit}: ${Math.round(share * 100)} % of what ${label(c, host)} takes (${takes.full_mV_per_V} mV/V). Readings are coarse and noisy.`,
          evidence: { bridge_mV_V: round(most, 2), takes_mV_V: takes.full_mV_per_V },
          rests: [{ ref, path: "bridge/mV_per_V", called: `the rated output of ${ref}` }],
          fixes: [],
        },
      ];
    });
  },
};
