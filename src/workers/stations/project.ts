import { effectsOf, type RuleEffect } from "../../core/house";
import { refreshCompanions, refreshStraps } from "../../core/plan/assign";
import { about, type About } from "../../core/about";
import { explain, findingKey, findings, holdsUp, verdict, type Fix } from "../../core/checks";
import { circuitOf } from "../../core/circuit";
import { progressOf } from "../../core/glance";
import {
  applyEdit,
  describeEdit,
  loadProject,
  mergeProjects,
  readProject,
  writeProject,
  type Clash,
  type Edit,
  type HouseRuleKey,
  type Picks,
  type Project,
} from "../../core/project";
import { catalogue, need, needFor } from "../loading";
import { step, type Step } from "../step";

/** What an edit would change, in words, before it is made. */
export interface Preview {
  verdict: string;
  gone: string[];
  come: string[];
  changes: string[];
}

const judged = (project: Project) => {
  const c = circuitOf(project, catalogue);
  const list = findings(c);
  return { list, verdict: verdict(c, list) };
};

function changes(before: Project, after: Project): string[] {
  const line = (l: { from: string; to: string }) => `${l.from} – ${l.to}`;
  const old = new Set(before.links.map(line));
  const now = new Set(after.links.map(line));
  const refs = new Map(before.parts.map((p) => [p.ref, p]));
  return [
    ...after.parts.flatMap((p) => {
      const was = refs.get(p.ref);
      if (!was) return [`adds ${p.ref} (${catalogue.get(p.part)?.name ?? p.part})`];
      const out: string[] = [];
      for (const k of Object.keys({ ...was.options, ...p.options }))
        if (was.options?.[k] !== p.options?.[k])
          out.push(`${p.ref} ${k}: ${was.options?.[k] ?? "as usual"} → ${p.options?.[k] ?? "as usual"}`);
      for (const k of Object.keys({ ...was.companions, ...p.companions }))
        if (
          JSON.stringify((was.companions as Record<string, unknown>)?.[k]) !==
          JSON.stringify((p.companions as Record<string, unknown>)?.[k])
        )
          out.push(
            `${p.ref} ${k}: ${JSON.stringify((p.companions as Record<string, unknown>)?.[k] ?? "none").replace(/["{}]/g, "")}`,
          );
      return out;
    }),
    ...before.parts.filter((p) => !after.parts.some((q) => q.ref === p.ref)).map((p) => `takes ${p.ref} out`),
    ...[...old].filter((l) => !now.has(l)).map((l) => `removes wire ${l}`),
    ...[...now].filter((l) => !old.has(l)).map((l) => `adds wire ${l}`),
  ];
}

/** An edit with what follows from it: suggestions that were taken over follow a changed option or house rule. */
function apply(project: Project, edit: Edit): Project {
  const next = applyEdit(project, edit, catalogue);
  const follows = ["setOption", "setHouseRules", "setDrawer"].includes(edit.type);
  const fresh = follows ? refreshCompanions(project, next, catalogue) : next;
  return edit.type === "setOption" || edit.type === "setPrint"
    ? refreshStraps(project, fresh, edit.ref, catalogue)
    : fresh;
}

const PART_ID = /^(?:board|chip|module|discrete|supply|connector)\/[a-z0-9-]{1,40}$/;

/** Ids that a project text names, so that they can be loaded before it is judged, in whatever spelling of JSON. Never throws. */
function partIdsIn(text: string): Set<string> {
  const ids = new Set<string>();
  const visit = (x: unknown) => {
    if (typeof x === "string") {
      if (ids.size < 2000 && PART_ID.test(x)) ids.add(x);
    } else if (typeof x === "object" && x !== null) Object.values(x).forEach(visit);
  };
  try {
    const doc = JSON.parse(text.slice(0, 2_000_000)) as { customParts?: unknown };
    // Those that are judged by whether they are shipped come first.
    if (Array.isArray(doc?.customParts)) for (const p of doc.customParts as { id?: unknown }[]) visit(p?.id);
    visit(doc);
  } catch {
    // What is no JSON, or too deep, is refused by the reader in a sentence.
  }
  return ids;
}

/** The newest question about fixes: older ones are given up. */
let trying = 0;

/** Opening, reading, writing and editing: what every station needs. */
export const projectApi = {
  /** What each choice of a house rule would make of the plan, tried. */
  async ruleEffects(project: Project, key: HouseRuleKey): Promise<RuleEffect[]> {
    await needFor(project);
    return effectsOf(project, key, catalogue);
  },

  /** Fetches ahead what every project needs, while the page still asks for the project itself. */
  async ready(): Promise<void> {
    await need([]);
  },

  async open(project: Project): Promise<Step> {
    await needFor(project);
    return step(project, "");
  },

  async edit(project: Project, edit: Edit): Promise<Step> {
    await needFor(project, edit);
    return step(apply(project, edit), describeEdit(edit));
  },

  /** What can be done about findings, by their keys: of all, or of one. Not tried yet. */
  async fixes(project: Project, of?: string): Promise<Record<string, Fix[]>> {
    await needFor(project);
    const list = findings(circuitOf(project, catalogue)).filter((f) => of === undefined || findingKey(f) === of);
    return Object.fromEntries(list.map((f) => [findingKey(f), f.fixes]));
  },

  /** Ids of a finding's fixes that were tried on a copy and do not do what they are offered for. */
  async failedFixes(project: Project, of: string): Promise<string[]> {
    await needFor(project);
    const mine = ++trying;
    const c = circuitOf(project, catalogue);
    const list = findings(c);
    const f = list.find((x) => findingKey(x) === of);
    const before = new Set(list.map(findingKey));
    const failed: string[] = [];
    for (const fix of f?.fixes ?? []) {
      // Edits come first: they are let in between any two tries, and a newer question ends an older one.
      await new Promise<void>((resolve) => setTimeout(resolve, 0));
      if (mine !== trying) return [];
      if (!holdsUp(c, f!, fix, before)) failed.push(fix.id);
    }
    return failed;
  },

  /** How many steps of the run sheet and checks of the bench there are, and how many of them are done. */
  async progress(project: Project): Promise<ReturnType<typeof progressOf>> {
    await needFor(project);
    return progressOf(circuitOf(project, catalogue));
  },

  /** What a place is, does here and would be missed for; null where there is none. */
  async about(project: Project, place: string): Promise<About | null> {
    await needFor(project);
    return about(circuitOf(project, catalogue), place);
  },

  /** The way and the sums behind a finding, line by line; empty when it is gone. */
  async explain(project: Project, key: string): Promise<string[]> {
    await needFor(project);
    const c = circuitOf(project, catalogue);
    const f = findings(c).find((x) => findingKey(x) === key);
    return f ? explain(c, f) : [];
  },

  async preview(project: Project, edit: Edit): Promise<Preview> {
    await needFor(project, edit);
    const after = apply(project, edit);
    const [a, b] = [judged(project), judged(after)];
    const key = (f: { rule: string; at: string[] }) => `${f.rule} ${f.at.join(" ")}`;
    const [ka, kb] = [new Set(a.list.map(key)), new Set(b.list.map(key))];
    return {
      verdict: b.verdict.words,
      gone: a.list.filter((f) => !kb.has(key(f))).map((f) => `${f.severity}: ${f.rule} at ${f.at[0]}`),
      come: b.list.filter((f) => !ka.has(key(f))).map((f) => `${f.severity}: ${f.message}`),
      changes: changes(project, after),
    };
  },

  async read(
    text: string,
  ): Promise<{ ok: true; project: Project } | { ok: false; problems: { path: string; message: string }[] }> {
    await need(partIdsIn(text));
    return readProject(text, catalogue);
  },

  /**
   * What was changed here put together with what was changed elsewhere since `before`, both as text. `step` is null where something
   * has to be chosen first, or where the two do not make a project that can be used.
   */
  async merge(
    mine: Project,
    before: string,
    theirs: string,
    picks: Picks,
  ): Promise<{ step: Step | null; clashes: Clash[]; notes: string[]; problem: string | null }> {
    await needFor(mine);
    await need([...partIdsIn(before), ...partIdsIn(theirs)]);
    const m = mergeProjects(JSON.parse(before) as Project, mine, JSON.parse(theirs) as Project, picks);
    const said = { clashes: m.clashes, notes: m.notes };
    if (m.clashes.some((c) => !(c.key in picks))) return { step: null, ...said, problem: null };
    const read = loadProject(JSON.parse(JSON.stringify(m.project)), catalogue);
    if (!read.ok) {
      const [p] = read.problems;
      return { step: null, ...said, problem: `${p!.path}: ${p!.message}` };
    }
    // Two sound changes can make something together that neither side saw.
    const grave = (p: Project) =>
      judged(p).list.flatMap((f) =>
        f.severity === "stop" || f.severity === "fault" ? [[findingKey(f), f.message] as const] : [],
      );
    const seen = new Set([mine, JSON.parse(theirs) as Project].flatMap((p) => grave(p).map(([key]) => key)));
    const fresh = grave(read.project).filter(([key]) => !seen.has(key));
    return {
      step: step(read.project, "put together with a change made elsewhere"),
      clashes: m.clashes,
      notes: [...m.notes, ...fresh.map(([, message]) => `Together, what neither side had: ${message}`)],
      problem: null,
    };
  },

  write(project: Project): string {
    return writeProject(project);
  },
};
