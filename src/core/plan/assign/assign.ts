import { circuitOf } from "../../circuit";
import { findPin, type Catalogue } from "../../parts/catalogue";
import type { Netlist } from "../../circuit/netlist";
import type { Link, Project } from "../../project";
import { attachPoint, followers, makeProblem } from "./collect";
import { planHookups, type PlannedLink } from "./hookups";
import { writeLp } from "./lp";
import { endOf, type Problem, type ProblemNeed } from "./problem";
import { clashingCore, solveSlowly, tidied, type Solution } from "./solver";
import { clashWords, needWords, whyChosen } from "./words";

export interface CostItem {
  reason: string;
  cost: number;
  at: string;
  says: string;
}
export interface SparePin {
  host: string;
  pin: string;
  can: string[];
}
export interface ClashNeed {
  need: string;
  wants: string;
  locked?: string;
}

export type AssignResult = {
  /** `feasible`: a legal plan, but the search was stopped before it was proven the cheapest. */
  status: "optimal" | "feasible" | "infeasible" | "stopped";
  cost: number;
  costBy: CostItem[];
  links: PlannedLink[];
  spare: SparePin[];
  core: ClashNeed[];
  /** In words: what clashes, when nothing fits, or that the search was stopped. */
  clash: string | null;
  ms: number;
  /** The project with every open link planned; the project as it was when nothing fits. */
  project: Project;
  problems: Problem[];
};

/** So long the proof of the cheapest plan may take, milliseconds; then the best so far is taken, and said to be unproven. */
const MOST_MS = 3000;

/** Said when a search ended without a plan and without a proof that there is none. */
const GIVEN_UP = "No plan was found before the search was stopped. Lock some pins, or take parts out, and plan again.";

/** Said when it is proven that nothing fits, and the smallest clash could not be found in time. */
const NO_REASON = "No plan exists for this list on this board. Which parts clash could not be told in time.";

/** Whether there is a plan: proven the cheapest, or at least legal. */
export const isPlanned = (a: Pick<AssignResult, "status">) => a.status === "optimal" || a.status === "feasible";

/** The link between a need and a pin of the problem, whichever way round it is written. */
const linkOfNeed = (p: Problem, id: string, l: Link) => {
  const other = l.from === id ? l.to : l.to === id ? l.from : null;
  return other !== null && p.pins.some((_, i) => endOf(p, i) === other);
};

function costItems(p: Problem, s: Solution): CostItem[] {
  const out = s.choice.flatMap((c, n) =>
    p.needs[n]!.choices[c]!.prices.map((x) => ({ reason: x.reason, cost: x.cost, at: p.needs[n]!.id, says: x.says })),
  ) as CostItem[];
  const more = (reason: string, cost: number, says: string) => cost && out.push({ reason, cost, at: p.host, says });
  more("side", s.sideCost, "wires of one part go to different sides of the board");
  more("order", s.orderCost, "lines that like to stand in a row do not");
  return out;
}

function spares(p: Problem, s: Solution, netlist: Netlist): SparePin[] {
  const used = new Set(s.choice.map((c, n) => p.needs[n]!.choices[c]!.pin));
  return p.pins.flatMap((pin, i) => {
    if (used.has(i)) return [];
    const offers = findPin(netlist.instance(pin.ref)!.part, pin.label)?.offers ?? [];
    return [{ host: pin.ref, pin: pin.label, can: [...new Set(offers.map((o) => o.kind))] }];
  });
}

/** Links of a project with one host's solution laid in; what was planned is also noted with its reason. */
export function layPlan(
  p: Problem,
  s: Solution,
  project: Project,
  netlist: Netlist,
  links: Link[],
  planned: PlannedLink[],
): Link[] {
  const at = s.choice.map((c, n) => endOf(p, p.needs[n]!.choices[c]!.pin));
  let now = links;
  p.needs.forEach((n, i) => {
    const mine = now.filter((l) => linkOfNeed(p, n.id, l));
    const existing = mine.find((l) => l.locked) ?? mine[0];
    if (!existing && n.locked) return;
    const sharing = p.needs
      .filter((m, j) => j !== i && n.share && m.share === n.share && at[j] === at[i])
      .map((m) => m.ref);
    const from = existing ? n.id : attachPoint(project, netlist, n.id);
    const to = at[i]!;
    const locked = existing?.locked ? { locked: true } : {};
    planned.push({ from, to, why: whyChosen(p, n, s.choice[i]!, [...new Set(sharing)]), ...locked });
    if (existing) now = now.map((l) => (l === existing ? { ...l, from, to } : l));
    else now = [...now, { from, to }];
  });
  now = now.filter((l) => {
    if (l.locked) return true;
    const need = p.needs.findIndex((n) => linkOfNeed(p, n.id, l));
    return need < 0 || [l.from, l.to].includes(at[need]!);
  });
  // Sensors that share a wire with another go to the same pin.
  for (const [id, leader] of followers(project, netlist, p.host)) {
    const lead = p.needs.findIndex((n) => n.id === leader);
    const open = !netlist.bindings.some((b) => `${b.ref}.${b.pin}` === id);
    if (lead < 0 || !open || now.some((l) => [l.from, l.to].includes(id))) continue;
    const from = attachPoint(project, netlist, id);
    planned.push({ from, to: at[lead]!, why: `shares the wire of ${leader}` });
    now = [...now, { from, to: at[lead]! }];
  }
  return now;
}

/** Wires that were not there before are the planner's: it may think of them again. */
function signed(before: Project, links: readonly Link[]): Link[] {
  const there = new Map(
    before.links.flatMap((l) => [[`${l.from} ${l.to}`, l] as const, [`${l.to} ${l.from}`, l] as const]),
  );
  return links.map((l) => (l.by ? l : (there.get(`${l.from} ${l.to}`) ?? { ...l, by: "plan" as const })));
}

/** The project with everything hooked up but the signal pins, and the problem of each host. */
export function problemsOf(project: Project, catalogue: Catalogue) {
  const hooked = planHookups(project, catalogue);
  const { netlist } = circuitOf(hooked.project, catalogue);
  return { hooked, netlist, problems: netlist.expanded.hosts.map((h) => makeProblem(hooked.project, netlist, h)) };
}

/**
 * Plans every open link: companions, supplies and grounds by rule, signal pins by the exact solver. Links that are locked
 * stay; unlocked ones may move when that is worth more than the price of moving a wire. Pauses now and then; the caller
 * may answer a pause with `true` to stop: the best plan so far comes back as `feasible`, or `stopped` without one.
 */
export function* assignSlowly(
  project: Project,
  catalogue: Catalogue,
  most_ms = MOST_MS,
): Generator<number, AssignResult, boolean | undefined> {
  const start = performance.now();
  const { hooked, netlist, problems } = problemsOf(project, catalogue);
  const result: AssignResult = {
    status: "optimal",
    cost: 0,
    costBy: [],
    links: [...hooked.planned],
    spare: [],
    core: [],
    clash: null,
    ms: 0,
    project,
    problems,
  };
  const nothing = (status: AssignResult["status"], core: ProblemNeed[], clash: string | null): AssignResult => ({
    ...result,
    status,
    links: [],
    costBy: [],
    cost: 0,
    spare: [],
    core: core.map((n) => ({ need: n.id, wants: needWords(n), ...(n.locked && { locked: n.locked }) })),
    clash,
    ms: performance.now() - start,
  });
  let links: Link[] = [...hooked.project.links];
  for (const p of problems) {
    const found = yield* solveSlowly(p, most_ms);
    const s = found && found !== "stopped" ? tidied(p, found) : found;
    if (s === "stopped") return nothing("stopped", [], GIVEN_UP);
    if (!s) {
      const core = clashingCore(p);
      return nothing("infeasible", core, core.length ? clashWords(p, core, netlist) : NO_REASON);
    }
    if (!s.proven) result.status = "feasible";
    links = layPlan(p, s, hooked.project, netlist, links, result.links);
    result.cost += s.cost;
    result.costBy.push(...costItems(p, s));
    result.spare.push(...spares(p, s, netlist));
  }
  result.costBy.sort((a, b) => b.cost - a.cost);
  result.project = { ...hooked.project, links: signed(project, links) };
  result.ms = performance.now() - start;
  return result;
}

/** For one of many trials the proof may take so long; a plan that is not proven the cheapest does as well there. */
export const TRIAL_MS = 200;

/** `assignSlowly` without pauses. */
export function assign(project: Project, catalogue: Catalogue, most_ms = MOST_MS): AssignResult {
  const run = assignSlowly(project, catalogue, most_ms);
  for (;;) {
    const r = run.next();
    if (r.done) return r.value;
  }
}

/** The same problems as LP text, hosts one after the other. Empty when there is no host. */
export const assignLp = (project: Project, catalogue: Catalogue): string =>
  problemsOf(project, catalogue).problems.map(writeLp).join("\n");
