import { assignSlowly, isPlanned, type AssignResult } from "../assign";
import type { Catalogue } from "../../parts/catalogue";
import { findings, type Finding, type Fix } from "../../checks";
import { circuitOf } from "../../circuit";
import { applyEdit, splitEnd, type Link, type Project } from "../../project";

/**
 * Findings that a wire may bring. What the list of parts brings by itself (too much for a supply, two alike addresses, memory)
 * no choice of wires mends.
 */
const OF_WIRES =
  /^(level|net|contact|led|current|load|part)\.|^pin\.(?!isp)|^i2c\.pullup-missing|^power\.(short|range|ground-joined|two-sources)|^adc\./;
const MOST_ROUNDS = 8;

const key = (f: Finding) => `${f.rule} ${f.at.join(" ")}`;
const grave = (f: Finding) => (f.severity === "stop" || f.severity === "fault") && OF_WIRES.test(f.rule);
const judged = (p: Project, catalogue: Catalogue) => findings(circuitOf(p, catalogue));
const same = (a: Link, b: Link) => a.from === b.from && a.to === b.to;
const apply = (p: Project, fix: Fix, catalogue: Catalogue) => fix.edits.reduce((q, e) => applyEdit(q, e, catalogue), p);

/** A wire that the planner would have made and left out, with what it would have brought. */
export interface LeftOut {
  from: string;
  to: string;
  why: string;
  /** What would help, when more than a loose part is needed. */
  helps: string | null;
}

/** A plan that was held against the circuit: what was put in so that it holds, and what was left open because nothing helps. */
export interface Obeyed extends AssignResult {
  added: string[];
  leftOut: LeftOut[];
  /** `leftOut` in a sentence; null when nothing is left open. */
  leftOpen: string | null;
}

/** Stops and faults that a project has and its forerunner had not. */
function news(before: ReadonlySet<string>, now: readonly Finding[]): Finding[] {
  return now.filter((f) => grave(f) && !before.has(key(f)));
}

/** A fix that stays within the planner's leave: no supply or board joins, no wire and no part of the person's goes. */
function isAllowed(fix: Fix, project: Project, after: Project): boolean {
  const buys = fix.edits.some((e) => e.type === "addPart" && /^(supply|board|chip)\//.test(e.part));
  const keeps = project.links.every((l) => after.links.some((x) => same(x, l) && (!l.locked || x.locked)));
  return !buys && keeps && fix.edits.every((e) => !TAKES.has(e.type));
}
/** Edits that change what the person chose. */
const TAKES = new Set(["removePart", "changePart", "setOption", "setHouseRules", "setHost"]);

/** The first fix that mends a finding and brings nothing as grave. */
function mended(p: Project, f: Finding, before: ReadonlySet<string>, original: Project, catalogue: Catalogue) {
  const count = (q: Project) => news(before, judged(q, catalogue)).length;
  const now = count(p);
  for (const fix of f.fixes) {
    const next = apply(p, fix, catalogue);
    if (!isAllowed(fix, original, next)) continue;
    const list = judged(next, catalogue);
    if (!list.some((x) => key(x) === key(f)) && count(next) < now) return { project: next, says: fix.label };
  }
  return null;
}

/**
 * What has to go when nothing mends a finding: every planned wire of the part that it speaks of, or of the part without whose
 * wires it is gone. Half a part wired would be a fault of its own.
 */
function blamed(f: Finding, planned: readonly Link[], project: Project, catalogue: Catalogue): Link[] {
  const n = circuitOf(project, catalogue).netlist;
  const part = (ref: string) => n.instance(ref)?.inserted?.by ?? ref;
  const isPart = (ref: string) => {
    const def = n.instance(ref)?.part;
    return def !== undefined && !def.board && !def.id.startsWith("supply/");
  };
  const of = (ref: string) => planned.filter((l) => [l.from, l.to].some((e) => part(splitEnd(e).ref) === ref));
  const named = [...new Set(f.at.map((x) => part(x.split(".")[0]!)))].filter(isPart);
  const all = [...new Set(planned.flatMap((l) => [l.from, l.to].map((e) => part(splitEnd(e).ref))))];
  const order = [...new Set([...named, ...all.filter(isPart), ...all])];
  const gone = (list: Link[]) =>
    list.length > 0 &&
    !judged({ ...project, links: project.links.filter((l) => !list.includes(l)) }, catalogue).some(
      (x) => key(x) === key(f) && x.severity === f.severity,
    );
  const found = order.find((ref) => gone(of(ref)));
  return found === undefined ? [] : of(found);
}

function openWords(list: readonly LeftOut[]): string | null {
  const first = list[0];
  if (!first) return null;
  const wires = list.map((l) => `${l.from} to ${l.to}`);
  const more = wires.length > 4 ? ` and ${wires.length - 4} more` : "";
  return `Left open: ${wires.slice(0, 4).join(", ")}${more}. ${first.why}${first.helps ? ` What would help: ${first.helps}.` : ""}`;
}

/**
 * Holds a plan against the solved circuit: no stop and no fault may stand that one of its own wires brings. A companion that
 * mends it is put in, or a buffer or shifter; where nothing does, the part is left open, with the reason. What was there before
 * is untouched.
 */
export function obey(project: Project, a: AssignResult, catalogue: Catalogue): Obeyed {
  const result: Obeyed = { ...a, added: [], leftOut: [], leftOpen: null };
  if (!isPlanned(a)) return result;
  const before = new Set(judged(project, catalogue).filter(grave).map(key));
  const isNew = (l: Link) => !project.links.some((x) => same(x, l) || (x.from === l.to && x.to === l.from));
  let now = a.project;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const bad = news(before, judged(now, catalogue));
    if (!bad.length) break;
    const planned = now.links.filter((l) => isNew(l) && !l.locked);
    const step = bad.map((f) => ({ f, links: blamed(f, planned, now, catalogue) })).find((x) => x.links.length);
    if (!step) break;
    const better = mended(now, step.f, before, project, catalogue);
    if (better) {
      now = better.project;
      result.added.push(better.says);
      continue;
    }
    now = { ...now, links: now.links.filter((l) => !step.links.includes(l)) };
    result.leftOut.push(
      ...step.links.map((l) => ({
        from: l.from,
        to: l.to,
        why: step.f.message,
        helps: step.f.fixes[0]?.label ?? null,
      })),
    );
  }
  const rest = news(before, judged(now, catalogue));
  if (rest.length) {
    // Wires by hand that contradict each other: then nothing is planned at all.
    const gone = now.links.filter((l) => isNew(l));
    now = project;
    result.added = [];
    result.leftOut = gone.map((l) => ({ from: l.from, to: l.to, why: rest[0]!.message, helps: null }));
  }
  const stays = (l: Link) => now.links.some((x) => same(x, l));
  // Wires that came with what was put in are part of the plan like any other.
  const brought = now.links
    .filter((l) => isNew(l) && !a.links.some((x) => same(x, l)))
    .map((l) => ({ ...l, why: "comes with what was put in for the levels" }));
  return {
    ...result,
    project: now,
    links: [...a.links.filter(stays), ...brought],
    leftOpen: openWords(result.leftOut),
  };
}

/** `assignSlowly`, held against the circuit; `most_ms`: how long the proof may take. */
export function* planSlowly(
  project: Project,
  catalogue: Catalogue,
  most_ms?: number,
): Generator<number, Obeyed, boolean | undefined> {
  const a = yield* assignSlowly(project, catalogue, most_ms);
  return obey(project, a, catalogue);
}

/** `planSlowly` without pauses. */
export function planAll(project: Project, catalogue: Catalogue, most_ms?: number): Obeyed {
  const run = planSlowly(project, catalogue, most_ms);
  for (;;) {
    const r = run.next();
    if (r.done) return r.value;
  }
}

/** Plans only what has no wire yet: every wire that is there stays, whoever made it. */
export function planOpen(project: Project, catalogue: Catalogue): Obeyed {
  const there = new Map(project.links.map((l) => [`${l.from} ${l.to}`, l]));
  // As if a person had made them all: what stands on a wrong pin is told by the checks, and no reason to refuse the rest.
  const kept = { ...project, links: project.links.map((l) => ({ ...l, locked: true, by: "hand" as const })) };
  const a = planAll(kept, catalogue);
  const links = a.project.links.map((l) => there.get(`${l.from} ${l.to}`) ?? there.get(`${l.to} ${l.from}`) ?? l);
  return { ...a, project: { ...a.project, links } };
}
