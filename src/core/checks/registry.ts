/** What runs the rules. */
import type { Circuit } from "../circuit";
import { restsOf } from "./rests";
import { RULES } from "./rules";
import { SEVERITIES, type Finding, type Fix, type Found } from "./types";

const order = (f: Found) => `${SEVERITIES.indexOf(f.severity)}|${f.rule}|${f.at.join("|")}`;

/** Puts the names that a person gave to a plug's pins beside their numbers in a sentence; null where nobody gave any. */
function plugNames(c: Circuit): ((text: string) => string) | null {
  const called = new Map<string, string>();
  for (const i of c.netlist.expanded.instances.values())
    for (const p of i.part.pins) if (p.called) called.set(`${i.ref}.${p.label}`, p.called);
  if (!called.size) return null;
  return (text) =>
    text.replace(/[A-Z]+[A-Z0-9]*\.[\w+-]+/g, (end) => (called.has(end) ? `${end} (${called.get(end)})` : end));
}

/** What is said of a part of the project's own stands on numbers that the catalogue does not vouch for: that is said too. */
function foreign(c: Circuit): ((f: Found) => string) | null {
  const own = new Set(c.project.customParts.map((p) => p.id));
  const refs = own.size
    ? [...c.netlist.expanded.instances.values()].flatMap((i) => (own.has(i.part.id) ? [i.ref] : []))
    : [];
  if (!refs.length) return null;
  return (f) => {
    const here = refs.filter((r) => f.at.some((x) => x === r || x.startsWith(`${r}.`) || x.startsWith(`${r}:`)));
    return here.length && f.rule !== "part.own-data" ? ` (By own data of ${here.join(", ")}.)` : "";
  };
}

/** The finding with its fixes worked out at the first look at them: most are never looked at. */
function asFinding(
  f: Found,
  name: ((text: string) => string) | null,
  more: string,
  reason: string | undefined,
  rests: ReturnType<typeof restsOf> | null,
): Finding {
  let fixes: Fix[] | undefined;
  return {
    rule: f.rule,
    severity: f.severity,
    at: f.at,
    message: `${name ? name(f.message) : f.message}${rests?.doubt ?? ""}${more}`,
    evidence: rests?.all ? { ...f.evidence, rests: rests.all } : f.evidence,
    get fixes() {
      if (!fixes) {
        const all = typeof f.fixes === "function" ? f.fixes() : f.fixes;
        fixes = name ? all.map((x) => ({ ...x, label: name(x.label) })) : all;
      }
      return fixes;
    },
    ...(reason && { acknowledged: reason }),
  };
}

/**
 * All findings of a circuit, sorted by severity, rule and place. Deterministic. Acknowledged ones carry the reason; a
 * `stop` keeps its weight whatever was acknowledged. Fixes are worked out when they are read.
 */
export function findings(c: Circuit): Finding[] {
  const name = plugNames(c);
  const own = foreign(c);
  const known = new Map(c.project.acknowledged.map((a) => [`${a.rule}|${a.at.join("|")}`, a.reason]));
  return RULES.flatMap((r) => r.check(c))
    .map((f) => {
      const rests = f.rests ? restsOf(c, f.rests) : null;
      const reason = known.get(`${f.rule}|${f.at.join("|")}`);
      return { key: order(f), f: asFinding(f, name, own?.(f) ?? "", reason, rests) };
    })
    .sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0))
    .map((x) => x.f);
}
