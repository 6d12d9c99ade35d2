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
