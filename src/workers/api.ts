import {
  assign,
  moveNeed,
  rankBoards,
  recommendedCompanions,
  refreshCompanions,
  type BoardTrial,
} from "../core/assign";
import { makeSearch, partKind, type Part, type PartKind } from "../core/catalogue";
import { shippedCatalogue } from "../core/catalogue/shipped";
import { findings, verdict } from "../core/checks";
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
import { loomSvg } from "../core/formats";
import { loom } from "../core/wiring";
import { makeView, type View } from "./view";

export interface Step {
  project: Project;
  view: View;
  says: string;
}
export interface PartSummary {
  id: string;
  kind: PartKind;
  name: string;
  does: string;
  certainty: string;
}
/** What an edit would change, in words, before it is made. */
export interface Preview {
  verdict: string;
  gone: string[];
  come: string[];
  changes: string[];
}

const catalogue = shippedCatalogue();
let search: ReturnType<typeof makeSearch> | undefined;

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
  const follows = edit.type === "setOption" || edit.type === "setHouseRules";
  return follows ? refreshCompanions(project, next, catalogue) : next;
}

/** Everything that the interface asks of the core. Runs in a worker; every call takes and returns plain data. */
export const api = {
  open(project: Project): Step {
    return step(project, "");
  },

  edit(project: Project, edit: Edit): Step {
    return step(apply(project, edit), describeEdit(edit));
  },

  preview(project: Project, edit: Edit): Preview {
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

  /** Adds a part with the companions it wants, and plans its pins when they fit. */
  add(project: Project, id: string, label: string): Step & { ref: string; clash: string | null } {
    const ref = nextRef(project, id);
    const bare = applyEdit(project, { type: "addPart", part: id, ref, ...(label && { label }) }, catalogue);
    const host = defaultHost(bare, partLookup(bare, catalogue));
    const entry = bare.parts.find((p) => p.ref === ref)!;
    const companions = host && host !== ref ? recommendedCompanions(bare, entry, catalogue, host) : {};
    const withOwn: Project = Object.keys(companions).length
      ? { ...bare, parts: bare.parts.map((p) => (p.ref === ref ? { ...p, companions } : p)) }
      : bare;
    const a = host ? assign(withOwn, catalogue) : null;
    const done = a?.status === "optimal" ? a.project : withOwn;
    return { ...step(done, `add ${label || ref}`), ref, clash: a?.clash ?? null };
  },

  plan(
    project: Project,
  ): Step & { clash: string | null; core: { need: string; wants: string }[]; ms: number; cost: number } {
    const a = assign(project, catalogue);
    return { ...step(a.project, "plan the pins"), clash: a.clash, core: a.core, ms: a.ms, cost: a.cost };
  },

  move(
    project: Project,
    need: string,
    pin: string,
  ): { ok: true; step: Step; moved: string[] } | { ok: false; why: string } {
    const m = moveNeed(project, catalogue, need, pin);
    if (!m.ok) return m;
    return {
      ok: true,
      step: step(m.project, `move ${need} to ${pin}`),
      moved: m.moved.map((x) => (x.from ? `${x.need}: ${x.from} → ${x.to}` : `${x.need}: ${x.to}`)),
    };
  },

  /** What a move would bring, without the cost of a whole view. */
  ghost(
    project: Project,
    need: string,
    pin: string,
  ): { ok: boolean; says: string; moved: { need: string; to: string }[] } {
    const m = moveNeed(project, catalogue, need, pin);
    if (!m.ok) return { ok: false, says: m.why, moved: [] };
    const after = judged(m.project);
    const wires = m.moved.map((x) => `${x.need} → ${x.to}`).join(", ");
    return {
      ok: true,
      says: m.moved.length
        ? `${m.moved.length} ${m.moved.length === 1 ? "wire moves" : "wires move"}: ${wires}. Then: ${after.verdict.words}`
        : "nothing moves",
      moved: m.moved.map(({ need: n, to }) => ({ need: n, to })),
    };
  },

  boards(project: Project): BoardTrial[] {
    return rankBoards(project, catalogue);
  },

  /** Takes another board (or the first), and plans the pins on it. */
  board(project: Project, id: string): Step & { clash: string | null } {
    const host = defaultHost(project, partLookup(project, catalogue));
    const edit: Edit = host
      ? { type: "changePart", ref: host, part: id }
      : { type: "addPart", part: id, ref: "B1", label: "Controller" };
    const next = applyEdit(project, edit, catalogue);
    const a = assign(next, catalogue);
    return { ...step(a.project, `board ${id}`), clash: a.clash };
  },

  search(query: string, kind?: PartKind): PartSummary[] {
    search ??= makeSearch(catalogue);
    return search(query, kind).map((id) => {
      const { name, does, certainty } = catalogue.get(id)!;
      return { id, kind: partKind(id), name, does, certainty };
    });
  },

  part(id: string): Part | undefined {
    return catalogue.get(id);
  },

  files(project: Project, target: string): FirmwareFile[] {
    const t = targetById(target);
    const c = circuitOf(project, catalogue);
    return t && !t.unfit(c) ? t.files(c) : [];
  },

  read(text: string): { ok: true; project: Project } | { ok: false; problems: { path: string; message: string }[] } {
    return readProject(text, catalogue);
  },

  write(project: Project): string {
    return writeProject(project);
  },

  svg(project: Project): string {
    return loomSvg(loom(circuitOf(project, catalogue)), project.title);
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
