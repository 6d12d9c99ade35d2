import {
  best,
  boardsOf,
  planAll,
  planSlowly,
  rankBoardsSlowly,
  REMEDY_PARTS,
  remediesSlowly,
  sortTrials,
  type BoardTrial,
  type Remedy,
} from "../../core/plan/advice";
import {
  alternatives,
  assignSlowly,
  isPlanned,
  moveNeed,
  type Alternative,
  type AssignResult,
} from "../../core/plan/assign";
import { placedAsBuilt } from "../../core/build";
import { findings, verdict } from "../../core/checks";
import { circuitOf } from "../../core/circuit";
import { applyEdit, defaultHost, endOn, partLookup, splitEnd, type Edit, type Project } from "../../core/project";
import {
  alikeParts,
  applySaving,
  boardFacts,
  SAVING_PARTS,
  savings,
  type Alike,
  type Ask,
  type Saving,
} from "../../core/plan/savings";
import { catalogue, need, needBoards, needFor } from "../loading";
import { step, type Step } from "../step";

/** Jobs that somebody no longer waits for. */
const dropped = new Set<number>();

const breathe = () => new Promise<void>((resolve) => setTimeout(resolve, 0));
/** How long work goes on before messages, such as a wish to stop, are looked at. */
const BREATH_MS = 25;

/** Runs slow work to its end, looking up now and then and showing what it has; a dropped job is told to stop. */
async function run<S, T>(
  work: Generator<S, T, boolean | undefined>,
  job: number,
  show?: (sofar: S) => void,
): Promise<T> {
  let last = performance.now();
  let stop = false;
  for (;;) {
    const r = work.next(stop);
    if (r.done) {
      dropped.delete(job);
      return r.value;
    }
    if (performance.now() - last < BREATH_MS) continue;
    show?.(r.value);
    await breathe();
    last = performance.now();
    stop = dropped.has(job);
  }
}

export interface PlanStep extends Step {
  status: AssignResult["status"];
  clash: string | null;
  /** Wires that were left out because they would harm, in a sentence; and the loose parts that were put in. */
  leftOpen: string | null;
  added: string[];
  core: { need: string; wants: string }[];
  ms: number;
  cost: number;
  costBy: { reason: string; cost: number }[];
}

const name = (project: Project, end: string | null) =>
  end === null ? "open" : endOn(defaultHost(project, partLookup(project, catalogue)), end);
const verdictOf = (project: Project) => {
  const c = circuitOf(project, catalogue);
  return verdict(c, findings(c)).words;
};

/** Shifters and buffers that a part's signals pass through. */
function translatorsOf(project: Project, ref: string): string[] {
  const partOf = partLookup(project, catalogue);
  const far = project.links.flatMap((l) => {
    const [a, b] = [splitEnd(l.from).ref, splitEnd(l.to).ref];
    return a === ref ? [b] : b === ref ? [a] : [];
  });
  return [...new Set(far)].filter((r) => (partOf(r)?.channels.length ?? 0) > 0 && !partOf(r)?.board);
}

/** Planning, moving, boards, remedies and ways to save pins. */
export const pinsApi = {
  /** Stops a job that was started with this number; its best answer so far comes back. */
  drop(job: number) {
    dropped.add(job);
  },

  async plan(project: Project, job = 0): Promise<PlanStep> {
    await needFor(project);
    const a = await run(planSlowly(project, catalogue), job);
    const by = new Map<string, number>();
    for (const x of a.costBy) by.set(x.reason, (by.get(x.reason) ?? 0) + x.cost);
    const { status, clash, core, ms, cost, leftOpen, added } = a;
    return {
      ...step(isPlanned(a) ? placedAsBuilt(a.project, catalogue) : a.project, "plan the pins"),
      status,
      clash,
      core,
      ms,
      cost,
      leftOpen,
      added,
      costBy: [...by].map(([reason, c]) => ({ reason, cost: c })),
    };
  },

  async move(
    project: Project,
    from: string,
    pin: string,
  ): Promise<{ ok: true; step: Step; moved: string[] } | { ok: false; why: string }> {
    await needFor(project);
    const m = moveNeed(project, catalogue, from, pin);
    if (!m.ok) return m;
    return {
      ok: true,
      step: step(m.project, `move ${from} to ${name(project, pin)}`),
      moved: m.moved.map((x) =>
        x.from ? `${x.need}: ${name(project, x.from)} → ${name(project, x.to)}` : `${x.need}: ${name(project, x.to)}`,
      ),
    };
  },

  /** What a move would bring, without the cost of a whole view. */
  async ghost(
    project: Project,
    from: string,
    pin: string,
  ): Promise<{ ok: boolean; says: string; moved: { need: string; to: string }[] }> {
    await needFor(project);
    const m = moveNeed(project, catalogue, from, pin);
    if (!m.ok) return { ok: false, says: m.why, moved: [] };
    const wires = m.moved.map((x) => `${x.need} → ${name(project, x.to)}`).join(", ");
    return {
      ok: true,
      says: m.moved.length
        ? `${m.moved.length} ${m.moved.length === 1 ? "wire moves" : "wires move"}: ${wires}. Then: ${verdictOf(m.project)}`
        : "nothing moves",
      moved: m.moved.flatMap(({ need: n, to }) => (to ? [{ need: n, to }] : [])),
    };
  },

  /** Wires an optional pin, or leaves it again, and plans what follows. */
  async want(project: Project, ref: string, pin: string, wanted: boolean): Promise<Step & { clash: string | null }> {
    await needFor(project);
    const next = applyEdit(project, { type: "setWanted", ref, pin, wanted }, catalogue);
    const a = planAll(next, catalogue);
    return { ...step(isPlanned(a) ? a.project : next, `${wanted ? "wire" : "leave"} ${ref}.${pin}`), clash: a.clash };
  },

  /** Hangs a part on another board, and plans its wires there. */
  async host(project: Project, ref: string, host: string): Promise<Step> {
    await needFor(project);
    // What stands in its wires, such as a level shifter, goes along.
    const next = [ref, ...translatorsOf(project, ref)].reduce(
      (p, r) => applyEdit(p, { type: "setHost", ref: r, host }, catalogue),
      project,
    );
    const a = planAll(next, catalogue);
    return step(isPlanned(a) ? a.project : next, `${ref} on ${host}`);
  },

  /** What would help where nothing fits, each really tried, shown as they come. Whole projects, ready to be taken. */
  async remedies(project: Project, job = 0, show?: (sofar: Remedy[]) => void): Promise<Remedy[]> {
    await needFor(project);
    await need(REMEDY_PARTS);
    await needBoards();
    const a = await run(assignSlowly(project, catalogue), job);
    let told = 0;
    return run(remediesSlowly(project, catalogue, a), job, (list) => {
      if (list.length > told) show?.(best(list));
      told = list.length;
    });
  },

  /** Ways to connect many alike things with fewer pins. */
  savings(ask: Ask): Saving[] {
    return savings(ask);
  },

  /** Alike parts of the project that could share pins, and what its board offers for the sums. */
  async alike(project: Project): Promise<{ groups: Alike[]; V: number; pin_A: number }> {
    await needFor(project);
    return { groups: alikeParts(project, catalogue), ...boardFacts(project, catalogue) };
  },

  /** Puts a way into the project, planned; the project stays as it is when it does not fit. */
  async save(
    project: Project,
    group: Alike,
    way: string,
  ): Promise<{ ok: true; step: Step } | { ok: false; why: string }> {
    await needFor(project);
    await need(SAVING_PARTS);
    const r = applySaving(project, catalogue, group, way);
    return r.ok ? { ok: true, step: step(r.project, r.says) } : r;
  },

  /** A plan that was worked out before, as a step. */
  async take(planned: Project, says: string): Promise<Step> {
    await needFor(planned);
    return step(planned, says);
  },

  async alternatives(project: Project, k: number): Promise<Alternative[]> {
    await needFor(project);
    return alternatives(project, catalogue, k);
  },

  /** Every board tried for this parts list, shown as they come; the planned projects stay here. */
  async boards(
    project: Project,
    job = 0,
    show?: (sofar: Omit<BoardTrial, "project">[]) => void,
  ): Promise<Omit<BoardTrial, "project">[]> {
    await needFor(project);
    await needBoards();
    const bare = (list: readonly BoardTrial[]) => list.map(({ project: _planned, ...b }) => b);
    const list = await run(rankBoardsSlowly(project, catalogue), job, (sofar) =>
      show?.(bare(sortTrials(sofar, project.brief))),
    );
    return list.length < boardsOf(project, catalogue).length ? [] : bare(list);
  },

  /** Takes another board (or the first), and plans the pins on it. */
  async board(project: Project, id: string): Promise<Step & { clash: string | null; leftOpen: string | null }> {
    await needFor(project, { type: "addPart", part: id });
    const host = defaultHost(project, partLookup(project, catalogue));
    const edit: Edit = host
      ? { type: "changePart", ref: host, part: id }
      : { type: "addPart", part: id, ref: "B1", label: "Controller" };
    const next = applyEdit(project, edit, catalogue);
    const a = planAll(next, catalogue);
    return { ...step(a.project, `board ${id}`), clash: a.clash, leftOpen: a.leftOpen };
  },
};
