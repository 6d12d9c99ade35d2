import type { Circuit } from "../../circuit";
import type { Net } from "../../circuit/netlist";
import { formatV } from "../../quantity";
import { label, round } from "../help";
import type { Found, Rule } from "../types";
import { endWords, unwireFixes, wayWords } from "./words";

/** The highest and lowest volts of a net, and where the highest comes from. */
function seenAt(c: Circuit, net: Net): { high: number; low: number; by: string } | null {
  if (net.kind === "supply" && net.V)
    return { high: net.V.max, low: net.V.min, by: endWords(c, { kind: "rail", net }) };
  const v = c.solved.volts.get(net.id);
  if (!v || v.from.end.kind === "open") return null;
  return { high: v.high.worst, low: v.low.worst, by: `${endWords(c, v.from.end)}${wayWords(v.from.passed)}` };
}

/** Terminals without a level of their own, such as a meter's shunt or a bus pair, against what they stand at most. */
export const commonMode: Rule = {
  rule: "level.common-mode",
  says: "A meter's shunt and the lines of a bus stand so many volts against the part's own ground and no more, however small the difference between the two.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst) =>
      inst.part.pins.flatMap((pin): Found[] => {
        const seen = pin.bears_V && seenAt(c, c.netlist.netOf(`${inst.ref}.${pin.label}`));
        if (!pin.bears_V || !seen) return [];
        const { min, max } = pin.bears_V;
        if (seen.high <= max + 1e-9 && seen.low >= min - 1e-9) return [];
        const end = `${inst.ref}.${pin.label}`;
        const V = seen.high > max ? seen.high : seen.low;
        return [
          {
            rule: "level.common-mode",
            severity: "stop",
            at: [end],
            message: `${end} (${label(c, inst.ref)}) stands at up to ${formatV(V)} against its ground, from ${seen.by}; it takes ${formatV(min)} to ${formatV(max)}. Do not power this.`,
            evidence: { stands_V: round(V), least_V: min, most_V: max },
            fixes: () => unwireFixes(c, end),
          },
        ];
      }),
    ),
};
