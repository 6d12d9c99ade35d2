import { circuitOf, type Circuit } from "../circuit";
import { applyEdit, type Project } from "../project";
import type { Catalogue } from "../parts/catalogue";
import { findings } from "./registry";
import { SEVERITIES, type Finding, type Fix } from "./types";

/** What tells a finding from others: its rule and its places. */
export const findingKey = (f: Pick<Finding, "rule" | "at">) => `${f.rule}|${f.at.join("|")}`;

const rank = (f: Finding) => SEVERITIES.indexOf(f.severity);
const NOTE = SEVERITIES.indexOf("note");

/** The project with a fix applied; null when an edit does not go through. */
function applied(project: Project, fix: Fix, catalogue: Catalogue): Project | null {
  try {
    return fix.edits.reduce((p, e) => applyEdit(p, e, catalogue), project);
  } catch {
    return null;
  }
}

/**
 * Whether a fix does what it is offered for: on a copy its finding is gone, and nothing of the same grade or a graver one has
 * come that was not there before. What is only worth knowing may bring other things worth knowing.
 */
export function holdsUp(c: Circuit, f: Finding, fix: Fix, before: ReadonlySet<string>): boolean {
  const next = applied(c.project, fix, c.catalogue);
  if (!next) return false;
  const after = findings(circuitOf(next, c.catalogue));
  const key = findingKey(f);
  const most = rank(f) === NOTE ? NOTE - 1 : rank(f);
  return !after.some((x) => findingKey(x) === key || (rank(x) <= most && !before.has(findingKey(x))));
}

/** The same findings, each with those of its fixes that were tried and held up, in their order. */
export function triedFindings(c: Circuit, list: readonly Finding[]): Finding[] {
  const before = new Set(list.map(findingKey));
  return list.map((f) => (f.fixes.length ? { ...f, fixes: f.fixes.filter((fix) => holdsUp(c, f, fix, before)) } : f));
}
