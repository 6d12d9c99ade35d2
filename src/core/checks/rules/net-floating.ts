import { recommendedCompanions } from "../../plan/assign";
import { restOf } from "../../circuit/solve";
import type { CompanionValue } from "../../project";
import { formatOhm } from "../../quantity";
import { elementsAt } from "../graph";
import { label } from "../help";
import type { Found, Rule } from "../types";

const pullWords = (v: CompanionValue) =>
  v === "internal"
    ? "Use the chip's own pull-up"
    : `Add a ${typeof v?.ohm === "number" ? formatOhm(v.ohm) : ""} pull resistor`;

export const netFloating: Rule = {
  rule: "net.floating",
  says: "An open contact, or an output that can only pull low, gives no high by itself: a pull must hold the pin.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      if (!["digital-in", "digital-io", "interrupt"].includes(b.need.kind) || b.chainedAfter) return [];
      const net = c.netlist.netOf(`${b.ref}.${b.pin}`);
      const opens = elementsAt(c, net.id).some((e) => e.ref === b.ref && e.kind === "contact");
      const drain = c.netlist.level(b.ref, b.pin)?.output === "open-drain";
      if (!opens && !drain) return [];
      if (restOf(c.solved, net.id, { internal: true })) return [];
      const entry = c.project.parts.find((p) => p.ref === b.ref);
      const { pullUp: _u, pullDown: _d, ...others } = entry?.companions ?? {};
      const values = entry
        ? recommendedCompanions(c.project, { ...entry, companions: others }, c.catalogue, b.host)
        : {};
      const key = values.pullDown !== undefined ? "pullDown" : "pullUp";
      return [
        {
          rule: "net.floating",
          severity: "risk",
          at: [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`],
          message: opens
            ? `While ${label(c, b.ref)} is open, nothing holds ${b.host}.${b.hostPin}: it reads at random.`
            : `${label(c, b.ref)} can only pull ${b.host}.${b.hostPin} low: without a pull-up it never reads high.`,
          evidence: { contact: b.ref },
          fixes:
            values[key] !== undefined
              ? [
                  {
                    id: "pull",
                    label: pullWords(values[key]!),
                    edits: [{ type: "setCompanion", ref: b.ref, key, value: values[key] }],
                  },
                ]
              : [],
        },
      ];
    }),
};
