import { circuitOf } from "../circuit";
import { findPin, type Catalogue } from "../catalogue";
import { splitEnd, type Link, type Project } from "../project";
import { planHookups, type PlannedLink } from "./hookups";
import { writeLp } from "./lp";
import { attachPoint, followers, makeProblem, type Problem, type ProblemNeed } from "./problem";
import { clashingCore, solve, type Solution } from "./solve";
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
  status: "optimal" | "infeasible";
  cost: number;
  costBy: CostItem[];
  links: PlannedLink[];
  spare: SparePin[];
  core: ClashNeed[];
  /** In words: what clashes, when nothing fits. */
  clash: string | null;
  ms: number;
  /** The project with every open link planned; the project as it was when nothing fits. */
  project: Project;
  problems: Problem[];
};

const isNeedLink = (p: Problem, ids: Set<string>, l: Link) =>
  (ids.has(l.from) && splitEnd(l.to).ref === p.host) || (ids.has(l.to) && splitEnd(l.from).ref === p.host);

function costItems(p: Problem, s: Solution): CostItem[] {
  const out = s.choice.flatMap((c, n) =>
    p.needs[n]!.choices[c]!.prices.map((x) => ({ reason: x.reason, cost: x.cost, at: p.needs[n]!.id, says: x.says })),
  );
  if (s.sideCost)
    out.push({
      reason: "side",
      cost: s.sideCost,
      at: p.host,
      says: "wires of one part go to different sides of the board",
    });
  return out;
}

function spares(p: Problem, s: Solution, can: (pin: string) => string[]): SparePin[] {
  const used = new Set(s.choice.map((c, n) => p.needs[n]!.choices[c]!.pin));
  return p.pins.flatMap((pin, i) => (used.has(i) ? [] : [{ host: p.host, pin: pin.label, can: can(pin.label) }]));
}

/**
 * Plans every open link: companions, supplies and grounds by rule, signal pins by the exact solver. Links that are locked
 * stay; unlocked ones may move when that is worth more than the price of moving a wire.
 */
export function assign(project: Project, catalogue: Catalogue): AssignResult {
  const start = performance.now();
  const hooked = planHookups(project, catalogue);
  const { netlist } = circuitOf(hooked.project, catalogue);
  const problems = netlist.expanded.hosts.map((h) => makeProblem(hooked.project, netlist, h));
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
  let links: Link[] = [...hooked.project.links];
  for (const p of problems) {
    const s = solve(p);
    if (!s) {
      const core = clashingCore(p);
      return {
        ...result,
        status: "infeasible",
        links: [],
        costBy: [],
        cost: 0,
        spare: [],
        core: core.map((n: ProblemNeed) => ({
          need: n.id,
          wants: needWords(n),
          ...(n.locked && { locked: n.locked }),
        })),
        clash: clashWords(p, core, netlist),
        ms: performance.now() - start,
      };
    }
    const ids = new Set(p.needs.map((n) => n.id));
    const at = s.choice.map((c, n) => p.pins[p.needs[n]!.choices[c]!.pin]!.label);
    p.needs.forEach((n, i) => {
      const existing = links.find((l) => isNeedLink(p, new Set([n.id]), l));
      const through = !existing && n.locked;
      const sharing = p.needs
        .filter((m, j) => j !== i && n.share && m.share === n.share && at[j] === at[i])
        .map((m) => m.ref);
      const why = whyChosen(p, n, s.choice[i]!, [...new Set(sharing)]);
      if (through) return;
      const from = attachPoint(hooked.project, netlist, n.id);
      const to = `${p.host}.${at[i]}`;
      result.links.push({ from, to, why, ...(existing?.locked && { locked: true }) });
      if (existing) links = links.map((l) => (l === existing ? { from, to, ...(l.locked && { locked: true }) } : l));
      else links.push({ from, to });
    });
    links = links.filter(
      (l) =>
        !isNeedLink(p, ids, l) ||
        p.needs.some((n, i) => [l.from, l.to].includes(n.id) && [l.from, l.to].includes(`${p.host}.${at[i]}`)),
    );
    // Sensors that share a wire with another go to the same pin.
    for (const [id, leader] of followers(hooked.project, netlist, p.host)) {
      const lead = p.needs.findIndex((n) => n.id === leader);
      const open = !netlist.bindings.some((b) => `${b.ref}.${b.pin}` === id);
      if (lead < 0 || !open || links.some((l) => [l.from, l.to].includes(id))) continue;
      const from = attachPoint(hooked.project, netlist, id);
      const to = `${p.host}.${at[lead]}`;
      result.links.push({ from, to, why: `shares the wire of ${leader}` });
      links.push({ from, to });
    }
    result.cost += s.cost;
    result.costBy.push(...costItems(p, s));
    const board = netlist.instance(p.host)!.part;
    result.spare.push(...spares(p, s, (label) => [...new Set(findPin(board, label)?.offers?.map((o) => o.kind))]));
  }
  result.costBy.sort((a, b) => b.cost - a.cost);
  result.project = { ...hooked.project, links };
  result.ms = performance.now() - start;
  return result;
}

/** The same problems as LP text, hosts one after the other. Empty when there is no host. */
export function assignLp(project: Project, catalogue: Catalogue): string {
  const hooked = planHookups(project, catalogue);
  const { netlist } = circuitOf(hooked.project, catalogue);
  return netlist.expanded.hosts.map((h) => writeLp(makeProblem(hooked.project, netlist, h))).join("\n");
}
