import type { Catalogue } from "../../parts/catalogue";
import { findings, type Finding } from "../../checks";
import { circuitOf } from "../../circuit";
import { applyEdit, type Project } from "../../project";

/** Findings that an added part brings by its nature, and whose first fix is what anybody would do. */
const OF_COURSE = new Set(["i2c.pullup-missing"]);
const MOST = 8;

const key = (f: Finding) => `${f.rule} ${f.at.join(" ")}`;

/** Applies the fixes that go without saying, as long as there are any. */
export function settle(project: Project, catalogue: Catalogue): Project {
  let now = project;
  for (let i = 0; i < MOST; i++) {
    const f = findings(circuitOf(now, catalogue)).find((x) => OF_COURSE.has(x.rule) && x.fixes.length);
    if (!f) break;
    now = f.fixes[0]!.edits.reduce((p, e) => applyEdit(p, e, catalogue), now);
  }
  return now;
}

/** Findings of a project that another has not. */
export function newFindings(before: Project, after: Project, catalogue: Catalogue): Finding[] {
  const had = new Set(findings(circuitOf(before, catalogue)).map(key));
  return findings(circuitOf(after, catalogue)).filter((f) => !had.has(key(f)));
}
