import type { Finding, Fix } from "../checks";
import { newFindings } from "../plan/advice";
import type { Catalogue } from "../parts/catalogue";
import { applyEdit, type Edit, type Project } from "../project";

const MOST_FIXES = 16;
/** What only somebody who looks at the part can settle. */
const FOR_EYES = new Set(["part.print"]);

/** What is wrong since something was joined: what was so before is not ours to mend. */
const loud = (before: Project, now: Project, catalogue: Catalogue): Finding[] =>
  newFindings(before, now, catalogue).filter((f) => f.severity !== "note");

/** How bad a plan has become: stops above all, then faults, then risks; a look at a header is the least of them. */
export const harm = (before: Project, now: Project, catalogue: Catalogue) =>
  loud(before, now, catalogue).reduce(
    (s, f) => s + (f.severity === "stop" ? 100 : f.severity === "fault" ? 10 : FOR_EYES.has(f.rule) ? 0.5 : 1),
    0,
  );

/** So many fixes of one finding are tried: the first are the best; and so many in all, since each is a whole check. */
const MOST_WAYS = 4;
const MOST_TRIES = 60;

/**
 * Applies fixes of what is above a note, one after the other, as somebody does who trusts them: the first that makes it better
 * as a whole; where none does at once, the first that there is, since some mends take two steps. What was best is kept.
 */
export function mended(before: Project, project: Project, catalogue: Catalogue): { project: Project; did: string[] } {
  const apply = (p: Project, edits: readonly Edit[]) => edits.reduce((q, e) => applyEdit(q, e, catalogue), p);
  let now = { project, did: [] as string[], harm: harm(before, project, catalogue) };
  let best = now;
  let tries = 0;
  while (now.did.length < MOST_FIXES && best.harm > 0) {
    const fixes = loud(before, now.project, catalogue)
      .filter((f) => !FOR_EYES.has(f.rule))
      .map((f) => f.fixes.filter((x) => !now.did.includes(x.label)).slice(0, MOST_WAYS));
    const step = (x: Fix) => {
      const p = apply(now.project, x.edits);
      return { project: p, did: [...now.did, x.label], harm: harm(before, p, catalogue) };
    };
    const first = fixes.find((list) => list.length)?.[0];
    if (!first) break;
    let next: typeof now | undefined;
    for (const x of fixes.flat()) {
      if (++tries > MOST_TRIES) break;
      const t = step(x);
      if (t.harm >= now.harm) continue;
      next = t;
      break;
    }
    now = next ?? step(first);
    if (now.harm < best.harm) best = now;
  }
  return { project: best.project, did: best.did };
}
