import type { Catalogue } from "../../parts/catalogue";
import type { Project } from "../../project";
import { layPlan, problemsOf } from "./assign";
import { planDiff, type Moved } from "./move";
import { bestPlans } from "./solver";

/** Another good plan, and how it differs from the best one. */
export interface Alternative {
  cost: number;
  /** How much dearer than the cheapest. */
  more: number;
  /** Needs that stand elsewhere than in the cheapest plan. */
  differs: Moved[];
  project: Project;
}

/** The `k` best plans of the first host that differ in more than a swap of alike parts, the cheapest first. */
export function alternatives(project: Project, catalogue: Catalogue, k: number): Alternative[] {
  const { hooked, netlist, problems } = problemsOf(project, catalogue);
  const p = problems[0];
  if (!p) return [];
  const partOf = new Map(project.parts.map((x) => [x.ref, `${x.part} ${JSON.stringify(x.options ?? {})}`]));
  const plans = bestPlans(p, k, (ref) => partOf.get(ref) ?? ref);
  const laid = plans.map((s) => ({
    ...hooked.project,
    links: layPlan(p, s, hooked.project, netlist, hooked.project.links, []),
  }));
  return plans.map((s, i) => ({
    cost: s.cost,
    more: s.cost - plans[0]!.cost,
    differs: i ? planDiff(laid[0]!, laid[i]!, catalogue) : [],
    project: laid[i]!,
  }));
}
