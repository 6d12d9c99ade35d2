import { partLookup, defaultHost, splitEnd, type CompanionKey, type CompanionValue, type Project } from "../../project";
import type { Catalogue } from "../../parts/catalogue";
import { recommendedCompanions } from "./companions";
import { planHookups } from "./hookups";

type Values = Partial<Record<CompanionKey, CompanionValue>>;
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

function recommended(project: Project, ref: string, catalogue: Catalogue): Values {
  const entry = project.parts.find((p) => p.ref === ref);
  if (!entry) return {};
  const host = entry.host ?? defaultHost(project, partLookup(project, catalogue));
  return recommendedCompanions(project, { ...entry, companions: {} }, catalogue, host);
}

/**
 * After an option or a house rule has changed: companions that were the planner's own suggestion follow the new
 * suggestion (another LED current, another resistor; another pull, another far end of the contact). Values that a person
 * chose differently stay.
 */
export function refreshCompanions(before: Project, after: Project, catalogue: Catalogue): Project {
  const rewire = new Set<string>();
  const partOf = partLookup(after, catalogue);
  const parts = after.parts.map((entry) => {
    const [old, now] = [recommended(before, entry.ref, catalogue), recommended(after, entry.ref, catalogue)];
    if (!entry.companions || same(old, now)) return entry;
    const keys = Object.keys(old) as CompanionKey[];
    if (!keys.every((k) => same(entry.companions![k], old[k]))) return entry;
    const kept = Object.fromEntries(
      Object.entries(entry.companions).filter(([k]) => !keys.includes(k as CompanionKey)),
    );
    if ("pullDown" in old !== "pullDown" in now) rewire.add(entry.ref);
    return { ...entry, companions: { ...kept, ...now } };
  });
  if (!rewire.size) return parts.every((p, i) => p === after.parts[i]) ? after : { ...after, parts };
  // The contact's far end goes to the other rail: its old wire goes, the planner lays the new one.
  const isReturn = (end: string) => {
    const { ref, pin } = splitEnd(end);
    return rewire.has(ref) && partOf(ref)?.pins.some((p) => p.label === pin && p.hook === "button-return");
  };
  const links = after.links.filter((l) => l.locked || !(isReturn(l.from) || isReturn(l.to)));
  return planHookups({ ...after, parts, links }, catalogue).project;
}

/** Where each pin of a part is tied, with its options as they are. */
function tiesOf(project: Project, ref: string, catalogue: Catalogue): Map<string, string> {
  const pins = partLookup(project, catalogue)(ref)?.pins ?? [];
  return new Map(pins.flatMap((p) => (p.hook ? [[p.label, `${p.hook} ${p.hookPin ?? ""}`] as const] : [])));
}

/**
 * After an option or the print of a part has changed: straps go where they now belong, wires that a person laid or locked
 * stay. A part without any wire waits for the plan.
 */
export function refreshStraps(before: Project, after: Project, ref: string, catalogue: Catalogue): Project {
  if (!before.links.some((l) => [l.from, l.to].some((e) => splitEnd(e).ref === ref))) return after;
  const [was, now] = [tiesOf(before, ref, catalogue), tiesOf(after, ref, catalogue)];
  const changed = new Set([...was.keys(), ...now.keys()].filter((label) => was.get(label) !== now.get(label)));
  const isChanged = (end: string) => splitEnd(end).ref === ref && changed.has(splitEnd(end).pin);
  const touches = (l: { from: string; to: string }) => isChanged(l.from) || isChanged(l.to);
  if (!changed.size) return after;
  const links = after.links.filter((l) => l.locked || l.by === "hand" || !touches(l));
  const kept = { ...after, links };
  const laid = planHookups(kept, catalogue).planned.filter(touches);
  return { ...kept, links: [...links, ...laid.map(({ why: _why, ...l }) => l)] };
}
