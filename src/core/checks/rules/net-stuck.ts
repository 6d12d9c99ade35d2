import { label, round } from "../help";
import type { Found, Rule } from "../types";
import { railWords, unwireFixes } from "./words";

/** A line that is read, or that both ends pull low in turn, wired straight to a rail: it can never change. */
export const stuck: Rule = {
  rule: "net.stuck",
  says: "A signal that is joined straight to ground or to a supply never changes: nothing is read there, and no bus works.",
  check: (c) => {
    const seen = new Set<string>();
    return c.netlist.bindings.flatMap((b): Found[] => {
      const net = c.netlist.netOf(`${b.ref}.${b.pin}`);
      const host = net.ends.find((e) => e.ref === b.host && e.pin === b.hostPin);
      const rail = net.kind === "ground" || net.kind === "supply";
      // An output against a rail is a short, with a rule of its own.
      if (!rail || !net.V || (host?.as !== "both" && host?.as !== "receiver") || seen.has(net.id + b.hostPin))
        return [];
      seen.add(net.id + b.hostPin);
      const fixes = [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`].flatMap((e) => unwireFixes(c, e, 1));
      return [
        {
          rule: "net.stuck",
          severity: "fault",
          at: [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`],
          message: `${b.ref}.${b.pin} (${label(c, b.ref)}) and ${b.host}.${b.hostPin} are joined straight to ${railWords(c, net)}: the line never changes, so nothing can be read or sent there.`,
          evidence: { rail: net.name, rail_V: round(net.V.typ) },
          fixes: () => fixes.filter((f, i) => fixes.findIndex((g) => g.id === f.id) === i),
        },
      ];
    });
  },
};
