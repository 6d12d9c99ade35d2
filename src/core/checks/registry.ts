/** What runs the rules. */
import type { Circuit } from "../circuit";
import { RULES } from "./rules";
import { SEVERITIES, type Finding } from "./types";

const order = (f: Finding) => `${SEVERITIES.indexOf(f.severity)}|${f.rule}|${f.at.join("|")}`;

/** Puts the names that a person gave to a plug's pins beside their numbers in a sentence; null where nobody gave any. */
function plugNames(c: Circuit): ((text: string) => string) | null {
  const called = new Map<string, string>();
  for (const i of c.netlist.expanded.instances.values())
    for (const p of i.part.pins) if (p.called) called.set(`${i.ref}.${p.label}`, p.called);
  if (!called.size) return null;
  return (text) =>
    text.replace(/[A-Z]+[A-Z0-9]*\.[\w+-]+/g, (end) => (called.has(end) ? `${end} (${called.get(end)})` : end));
}

/**
 * All findings of a circuit, sorted by severity, rule and place. Deterministic. Acknowledged ones carry the reason; a
 * `stop` keeps its weight whatever was acknowledged.
 */
export function findings(c: Circuit): Finding[] {
  const name = plugNames(c);
  const known = new Map(c.project.acknowledged.map((a) => [`${a.rule}|${a.at.join("|")}`, a.reason]));
  return RULES.flatMap((r) => r.check(c))
    .map((f) =>
      name ? { ...f, message: name(f.message), fixes: f.fixes.map((x) => ({ ...x, label: name(x.label) })) } : f,
    )
    .map((f) => {
      const reason = known.get(`${f.rule}|${f.at.join("|")}`);
      return reason ? { ...f, acknowledged: reason } : f;
    })
    .sort((a, b) => (order(a) < order(b) ? -1 : order(a) > order(b) ? 1 : 0));
}
