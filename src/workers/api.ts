import { assign, chainAfter, isPlanned, recommendedCompanions, refreshCompanions } from "../core/plan/assign";
import {
  compareParts,
  describePart,
  readPart,
  type CompareRow,
  type Part,
  type PartDescription,
  type PartResult,
  type PartSummary,
} from "../core/parts/catalogue";
import type { Facets, SearchResult } from "../core/parts/catalogue/search";
import { findings, verdict } from "../core/checks";
import { readList, type MatchedLine } from "../core/parts/lists";
import {
  buildPart,
  draftFrom,
  emptyDraft,
  OwnDraftSchema,
  readiness,
  readPins,
  type DraftProblem,
  type OwnDraft,
  type PinList,
  type Readiness,
} from "../core/parts/own";
import { circuitOf } from "../core/circuit";
import { targetById, type FirmwareFile } from "../core/firmware";
import {
  applyEdit,
  defaultHost,
  describeEdit,
  nextRef,
  partLookup,
  readProject,
  writeProject,
  type Edit,
  type Project,
} from "../core/project";
import { judgeReading, parseReading, type CheckItem } from "../core/bench";
import { toSvg, type Drawing } from "../core/drawing";
import { panelDrawing, panelOf, type Panel } from "../core/build/panel";
import { solderBuild, type SolderBuild } from "../core/build/solder";
import { rewire, type Rewire } from "../core/build/compare";
import { loom, loomDrawing, type Loom } from "../core/build/loom";
import type { SizeId } from "../core/build/breadboard";
import { makeBreadboardView, placedAgain, type BreadboardView } from "./breadboard-view";
import { layOut } from "./layout";
import { catalogue, need, needFor, partIndex, summaries } from "./parts";
import { planningApi } from "./planning";
import { makePowerView, type PowerView } from "./power-view";
import type { Step } from "./step";
import { makeView } from "./view";

/** What an edit would change, in words, before it is made. */
export interface Preview {
  verdict: string;
  gone: string[];
  come: string[];
  changes: string[];
}

/** What the list of found parts shows: summaries in order of fit, and how many each narrowing would leave. */
export interface Found extends Omit<SearchResult, "scores"> {
  parts: (PartSummary & { own: boolean })[];
}
export interface OwnPartCheck {
  part: Part | null;
  problems: DraftProblem[];
  ready: Readiness[];
  description: PartDescription | null;
}
/** A line of an imported list as the person decided it. */
export interface ListChoice {
  to: "project" | "drawer";
  id: string;
  quantity: number;
  options: Record<string, string | number>;
  label?: string;
}

const step = (project: Project, says: string): Step => ({ project, view: makeView(project, catalogue), says });
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
  return follows ? refreshCompanions(project, next, catalogue) : next;
}

/** A part's entry with the loose parts that it wants around it. */
function withCompanions(project: Project, ref: string): Project {
  const host = defaultHost(project, partLookup(project, catalogue));
  const entry = project.parts.find((p) => p.ref === ref)!;
  const companions = host && host !== ref ? recommendedCompanions(project, entry, catalogue, host) : {};
  return Object.keys(companions).length
    ? { ...project, parts: project.parts.map((p) => (p.ref === ref ? { ...p, companions } : p)) }
    : project;
}

/** The drawer with the lines put in: values into their lists, parts counted. */
function intoDrawer(project: Project, lines: ListChoice[]) {
  const { drawer } = project;
  const parts: Record<string, number> = {};
  const ohms = new Set(drawer.resistors_ohm);
  const farads = new Set(drawer.capacitors_F);
  for (const l of lines) {
    const { resistance_ohm, capacitance_uF } = l.options;
    if (l.id === "discrete/resistor" && typeof resistance_ohm === "number") ohms.add(resistance_ohm);
    else if (typeof capacitance_uF === "number") farads.add(Number((capacitance_uF * 1e-6).toPrecision(6)));
    else parts[l.id] = (parts[l.id] ?? drawer.parts[l.id] ?? 0) + l.quantity;
  }
  const sorted = (set: Set<number>) => [...set].sort((a, b) => a - b);
  return { parts, resistors_ohm: sorted(ohms), capacitors_F: sorted(farads) };
}

/** Ids that a project text names, so that they can be loaded before it is judged. Never throws. */
const partIdsIn = (text: string) =>
  new Set(
    [...text.slice(0, 2_000_000).matchAll(/"((?:board|chip|module|discrete|supply|connector)\/[a-z0-9-]{1,40})"/g)]
      .map((m) => m[1]!)
      .slice(0, 2000),
  );

/** Everything that the interface asks of the core. Runs in a worker; every call takes and returns plain data. */
export const api = {
  ...planningApi(catalogue, step),

  async open(project: Project): Promise<Step> {
    await needFor(project);
    return step(project, "");
  },

  async edit(project: Project, edit: Edit): Promise<Step> {
    await needFor(project, edit);
    return step(apply(project, edit), describeEdit(edit));
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

  /** Adds parts of one kind with the companions they want, and plans their pins when they fit. */
  async add(
    project: Project,
    id: string,
    label: string,
    more: { quantity?: number; options?: Record<string, unknown>; own?: Part } = {},
  ): Promise<Step & { ref: string; refs: string[]; clash: string | null }> {
    await needFor(project, { type: "addPart", part: id });
    const count = Math.max(1, Math.min(more.quantity ?? 1, 50));
    // A part from the person's own collection travels with every project that uses it.
    let now =
      more.own && !project.customParts.some((p) => p.id === id)
        ? applyEdit(project, { type: "setOwnPart", part: more.own }, catalogue)
        : project;
    const refs: string[] = [];
    for (let n = 1; n <= count; n++) {
      const ref = nextRef(now, id);
      const name = label && count > 1 ? `${label} ${n}` : label;
      refs.push(ref);
      now = withCompanions(
        applyEdit(
          now,
          {
            type: "addPart",
            part: id,
            ref,
            ...(name && { label: name }),
            ...(more.options && { options: more.options }),
          },
          catalogue,
        ),
        ref,
      );
    }
    const host = defaultHost(now, partLookup(now, catalogue));
    const a = host ? assign(now, catalogue) : null;
    const done = a && isPlanned(a) ? a.project : now;
    const says = `add ${label || refs[0]}${count > 1 ? ` and ${count - 1} more` : ""}`;
    return { ...step(done, says), ref: refs[0]!, refs, clash: a?.clash ?? null };
  },

  /** Finds parts by words, narrowed by facets, among the shipped ones and the person's own. */
  async search(query: string, facets: Facets, own: readonly Part[]): Promise<Found> {
    const { search, byId } = await partIndex(own);
    const { ids, counts, partial } = search(query, facets);
    const mine = new Set(own.map((p) => p.id));
    return { ids, counts, partial, parts: ids.map((id) => ({ ...byId.get(id)!, own: mine.has(id) })) };
  },

  /** Whole definitions, the person's own first; ids that nobody has are left out. */
  async parts(wanted: string[], own: readonly Part[]): Promise<Part[]> {
    await need(wanted);
    return wanted.flatMap((id) => own.find((p) => p.id === id) ?? catalogue.get(id) ?? []);
  },

  async compare(wanted: string[], own: readonly Part[]): Promise<{ names: string[]; rows: CompareRow[] }> {
    const list = await api.parts(wanted, own);
    return { names: list.map((p) => p.name), rows: compareParts(list) };
  },

  async describe(id: string, own: readonly Part[]): Promise<{ part: Part; description: PartDescription } | null> {
    const [part] = await api.parts([id], own);
    return part ? { part, description: describePart(part) } : null;
  },

  /** Reads a pasted or imported parts list and matches it; nothing is changed yet. */
  async list(
    text: string,
    own: readonly Part[],
  ): Promise<{ ok: true; lines: MatchedLine[] } | { ok: false; message: string }> {
    const read = readList(text);
    if (!read.ok) return read;
    const { match } = await partIndex(own);
    return { ok: true, lines: match(read.lines) };
  },

  /** Takes the decided lines over: parts into the project, planned in one go, the rest into the drawer. */
  async takeList(
    project: Project,
    choices: ListChoice[],
    own: readonly Part[],
  ): Promise<Step & { clash: string | null; added: number }> {
    await needFor(project);
    await need(choices.map((c) => c.id));
    let now = project;
    let added = 0;
    for (const c of choices.filter((x) => x.to === "project")) {
      const mine = own.find((p) => p.id === c.id);
      if (mine && !now.customParts.some((p) => p.id === c.id))
        now = applyEdit(now, { type: "setOwnPart", part: mine }, catalogue);
      for (let n = 0; n < Math.min(c.quantity, 50); n++) {
        const ref = nextRef(now, c.id);
        const options = Object.keys(c.options).length ? { options: c.options } : {};
        now = withCompanions(applyEdit(now, { type: "addPart", part: c.id, ref, ...options }, catalogue), ref);
        added++;
      }
    }
    const loose = choices.filter((x) => x.to === "drawer");
    if (loose.length) now = applyEdit(now, { type: "setDrawer", drawer: intoDrawer(now, loose) }, catalogue);
    const host = defaultHost(now, partLookup(now, catalogue));
    const a = host && added ? assign(now, catalogue) : null;
    const done = a && isPlanned(a) ? a.project : now;
    return { ...step(done, `take over a list of ${choices.length}`), clash: a?.clash ?? null, added };
  },

  /** Puts a piece of a chain behind another: its data comes from that one's data-out. */
  async chain(project: Project, ref: string, after: string | null): Promise<Step> {
    await needFor(project);
    const next = chainAfter(project, catalogue, ref, after);
    const a = assign(next, catalogue);
    return step(isPlanned(a) ? a.project : next, after ? `${ref} after ${after}` : `${ref} on its own pin`);
  },

  ownPins(text: string): PinList {
    return readPins(text);
  },

  /** A draft for the editor: blank, from an own part to change it, or from any part to copy it. */
  async ownDraft(from: { id: string; copy: boolean } | null, own: readonly Part[]): Promise<OwnDraft> {
    const part = from ? (await api.parts([from.id], own))[0] : undefined;
    return part ? draftFrom(part, from!.copy) : emptyDraft();
  },

  /** What the draft makes, what is wrong with it, and what can be judged with it. */
  async ownCheck(draft: unknown): Promise<OwnPartCheck> {
    const parsed = OwnDraftSchema.safeParse(draft);
    if (!parsed.success)
      return {
        part: null,
        problems: parsed.error.issues.map((i) => ({ field: i.path.join("/"), message: i.message })),
        ready: [],
        description: null,
      };
    const { part: made, problems } = buildPart(parsed.data);
    // A new part must not hide a shipped one that happens to be called the same.
    const shipped = made && !parsed.data.id && (await summaries()).some((s) => s.id === made.id);
    const part = made && shipped ? { ...made, id: `${made.id.slice(0, 36)}-own` } : made;
    return { part, problems, ready: part ? readiness(part) : [], description: part ? describePart(part) : null };
  },

  readPart(text: string): PartResult {
    return readPart(text);
  },

  async files(project: Project, target: string): Promise<FirmwareFile[]> {
    await needFor(project);
    const t = targetById(target);
    const c = circuitOf(project, catalogue);
    return t && !t.unfit(c) ? t.files(c) : [];
  },

  async read(
    text: string,
  ): Promise<{ ok: true; project: Project } | { ok: false; problems: { path: string; message: string }[] }> {
    await need(partIdsIn(text));
    return readProject(text, catalogue);
  },

  write(project: Project): string {
    return writeProject(project);
  },

  /** Everything of the Power station; supplies are loaded for the advice. */
  async power(project: Project): Promise<PowerView> {
    await needFor(project);
    const all = await summaries();
    await need(all.filter((x) => x.id.startsWith("supply/")).map((x) => x.id));
    return makePowerView(project, catalogue);
  },

  /** The loom drawing, laid out in a worker of its own. */
  async loom(project: Project): Promise<Loom> {
    await needFor(project);
    return loom(circuitOf(project, catalogue), layOut);
  },

  /** The front of the box and its drawing; null without a box. */
  async panel(project: Project): Promise<{ panel: Panel; drawing: Drawing } | null> {
    await needFor(project);
    const panel = panelOf(circuitOf(project, catalogue));
    return panel && { panel, drawing: panelDrawing(panel) };
  },

  /** The circuit soldered to keep. */
  async solder(project: Project): Promise<SolderBuild> {
    await needFor(project);
    return solderBuild(circuitOf(project, catalogue));
  },

  /** What a bench wired after one version needs to be wired after another. */
  async compareWiring(before: Project, after: Project): Promise<Rewire> {
    await needFor(before);
    await needFor(after);
    return rewire(circuitOf(before, catalogue), circuitOf(after, catalogue));
  },

  /** The placement on breadboards: the project's own, or the best one found when it has none. */
  async breadboard(project: Project): Promise<BreadboardView> {
    await needFor(project);
    return makeBreadboardView(project, catalogue);
  },

  /** The best placement for these boards, with given parts held where they are. */
  async placeParts(project: Project, boards: SizeId[] | null, held: string[]): Promise<Step> {
    await needFor(project);
    return step(placedAgain(project, catalogue, boards, held), "place the parts on the breadboard");
  },

  async svg(project: Project, plain = false): Promise<string> {
    return toSvg(loomDrawing(await api.loom(project)), project.title, { plain });
  },

  /** Judges a meter reading as typed. */
  reading(item: CheckItem, text: string): { ok: boolean; says: string } {
    const r = parseReading(text, item.unit);
    if (!r.ok) return { ok: false, says: r.message };
    const good = judgeReading(item, r.value);
    const want =
      item.low === null
        ? `at most ${item.high}`
        : item.high === null
          ? `over ${item.low}`
          : `${item.low} to ${item.high}`;
    return { ok: good, says: good ? "as it should be" : `outside: expected ${want} ${item.unit}` };
  },
};
export type CoreApi = typeof api;
