import type { Circuit } from "../../circuit";
import { evaluate, formatV } from "../../quantity";
import { label, round } from "../help";
import { logicSupplyFix } from "../supply-fixes";
import type { Found, Rule } from "../types";

/** The volts at which a host's converter reads full. */
function fullScale(c: Circuit, host: string): number {
  const inst = c.netlist.instance(host)!;
  const analog = inst.part.board?.analog;
  const rail = c.netlist.netOf(`${host}:${inst.part.board?.logicSupply ?? ""}`)?.V?.typ ?? 5;
  return analog ? Math.min(evaluate(analog.full_V.typ), rail) : rail;
}

/** Slack of a reference: it is no better known than this. */
const REF_SLACK = 1.1;

export const adcRange: Rule = {
  rule: "adc.range",
  says: "A converter reads full at its reference: what is above it can't be told apart.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      const board = c.netlist.instance(b.host)?.part.board;
      if (b.need.kind !== "adc" || !board) return [];
      const full = fullScale(c, b.host);
      // What the part can put out: its level's top, or the rails that its divider or wiper hangs between.
      const v = c.levels.find((x) => x.receiver.ref === b.host && x.receiver.pin === b.hostPin);
      const net = c.netlist.netOf(`${b.host}.${b.hostPin}`);
      // At its brightest, hottest or uppermost, but never above the usual rail that it comes from.
      const seen = c.solved.volts.get(net.id);
      const rail = seen?.from.end.kind === "rail" ? seen.from.end.net.V?.typ : undefined;
      const above = Math.min(seen?.high.worst ?? 0, rail ?? Infinity);
      const top = v ? Math.min(v.highest_V, v.driver.V.typ) : above;
      if (v && v.highest_V > v.ceiling + 1e-9) return [];
      if (top <= full * REF_SLACK) return [];
      const share = Math.round((1 - full / top) * 100);
      return [
        {
          rule: "adc.range",
          severity: "risk",
          at: [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`],
          message: `${label(c, b.ref)} gives up to ${formatV(top)}; ${label(c, b.host)} reads full at ${formatV(full)}: the upper ${share} % all read the same.`,
          evidence: { top_V: round(top), full_V: round(full) },
          fixes: () => [...logicSupplyFix(c, b.ref)],
        },
      ];
    }),
};
