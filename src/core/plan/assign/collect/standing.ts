import type { Circuit } from "../../../circuit";
import type { Project } from "../../../project";
import { endOf, type Choice, type Problem, type ProblemNeed } from "../problem";
import { makeProblem } from "./make";

const known = new WeakMap<Project, Map<string, Problem>>();

/** The problem of a host for a project as it stands, remembered by the project's identity. */
export function problemOf(c: Circuit, host: string): Problem {
  const mine = known.get(c.project) ?? new Map<string, Problem>();
  known.set(c.project, mine);
  const p = mine.get(host) ?? makeProblem(c.project, c.netlist, host);
  mine.set(host, p);
  return p;
}

/** What of a host's timers and edge lines is taken as things are wired: the small part of its problem that rules need. */
export const standingProblem = (c: Circuit, host: string): Problem =>
  makeProblem(c.project, c.netlist, host, (need) => need.kind === "pwm" || need.kind === "interrupt");

/** Two wired needs that take one shared thing in ways that exclude each other. */
export interface SharedClash {
  a: ProblemNeed;
  b: ProblemNeed;
  says: string;
  modes: [string, string];
  /** The same channel or line, rather than different rates. */
  slot: string | null;
}

/** The first thing that two choices can't both take. */
function between(p: Problem, x: Choice, y: Choice): Omit<SharedClash, "a" | "b"> | null {
  for (const u of x.uses)
    for (const v of y.uses) {
      if (u.resource !== v.resource) continue;
      const says = p.resources[u.resource]!.says;
      if (u.slot !== null && u.slot === v.slot && x.pin !== y.pin)
        return { says, modes: [u.mode, v.mode], slot: u.slot };
      if (u.mode !== v.mode && p.resources[u.resource]!.modes === 1)
        return { says, modes: [u.mode, v.mode], slot: null };
    }
  return null;
}

/** Pairs of needs that stand where they can't both have the timer, the line or the pin set that they need. */
export function sharedClashes(p: Problem): SharedClash[] {
  const standing = p.needs.map((n) => n.choices.filter((c) => n.present === endOf(p, c.pin)));
  const out: SharedClash[] = [];
  if (!p.resources.length) return out;
  const asks = (i: number) => standing[i]!.length > 0 && standing[i]!.every((c) => c.uses.length > 0);
  for (let i = 0; i < p.needs.length; i++)
    for (let j = i + 1; j < p.needs.length; j++) {
      if (!asks(i) || !asks(j)) continue;
      const found = standing[i]!.flatMap((x) => standing[j]!.map((y) => between(p, x, y)));
      if (found.length && found.every((f) => f !== null)) out.push({ a: p.needs[i]!, b: p.needs[j]!, ...found[0]! });
    }
  return out;
}
