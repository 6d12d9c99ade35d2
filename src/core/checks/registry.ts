/** The one registry of rules, and what runs them. */
import type { Circuit } from "../circuit";
import { breadboardRules } from "./breadboard";
import { capacitorRules } from "./capacitors";
import { contactRules } from "./contacts";
import { currentRules } from "./currents";
import { i2cRules } from "./i2c";
import { inputRules } from "./inputs";
import { loadRules } from "./loads";
import { netRules } from "./nets";
import { pinRules } from "./pins";
import { oneWireRules } from "./onewire";
import { powerRules } from "./power";
import { regulatorRules } from "./regulators";
import { reversedRules } from "./reversed";
import { levelRules, solvedRules } from "./rules";
import { sourceRules } from "./sources";
import { serialRules } from "./serial";
import { surroundingRules } from "./surroundings";
import { SEVERITIES, type Finding, type Rule } from "./types";
import { wireRules } from "./wires";

export const RULES: readonly Rule[] = [
  ...pinRules,
  ...levelRules,
  ...currentRules,
  ...loadRules,
  ...reversedRules,
  ...i2cRules,
  ...serialRules,
  ...oneWireRules,
  ...inputRules,
  ...contactRules,
  ...powerRules,
  ...sourceRules,
  ...regulatorRules,
  ...capacitorRules,
  ...wireRules,
  ...netRules,
  ...breadboardRules,
  ...surroundingRules,
  ...solvedRules,
];

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
