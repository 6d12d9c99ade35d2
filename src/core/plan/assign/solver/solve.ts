import type { Problem } from "../problem";
import { countingClash } from "./counting";
import { extras } from "./legal";
import { Search } from "./search";

/** A choice index for every need, with its price in the units of the weights. */
export interface Solution {
  choice: number[];
  cost: number;
  sideCost: number;
  orderCost: number;
  /** False when the search was stopped before everything was tried. */
  proven: boolean;
}

function solutionOf(p: Problem, choice: number[], proven: boolean): Solution {
  const { side, order } = extras(p, choice);
  const own = choice.reduce((sum, c, n) => sum + p.needs[n]!.choices[c]!.cost, 0);
  return { choice, cost: own + side + order, sideCost: side, orderCost: order, proven };
}

const SLICE = 64;

/** Nodes that one call may work on: many seconds, far beyond any real project. */
export const MOST_NODES = 200_000;

/**
 * Solves in slices and pauses after each with the number of nodes so far; an answer of `true` stops it. Returns the
 * cheapest plan, or the best so far when stopped; null when it is proven that there is none; `"stopped"` when it was
 * stopped before it found one. `most_ms`: after so long the best plan so far is given, unproven.
 */
export function* solveSlowly(
  p: Problem,
  most_ms = Infinity,
): Generator<number, Solution | null | "stopped", boolean | undefined> {
  if (countingClash(p)) return null;
  const end = performance.now() + most_ms;
  const search = new Search(p);
  let done = search.step(SLICE);
  while (!done && search.nodes < MOST_NODES && performance.now() < end) {
    if (yield search.nodes) break;
    done = search.step(SLICE);
  }
  if (search.bestChoice) return solutionOf(p, search.bestChoice, done);
  return done ? null : "stopped";
}

/**
 * The cheapest assignment, proven. Null when no assignment exists. Deterministic; the present plan is the first to beat,
 * further ties go to the pins printed first. Throws when the search gives up, which no test has seen.
 */
export function solve(p: Problem): Solution | null {
  const run = solveSlowly(p);
  for (;;) {
    const r = run.next();
    if (!r.done) continue;
    if (r.value === "stopped") throw new Error("the search for a plan was given up");
    return r.value;
  }
}

/** Whether any assignment exists, as far as `most` nodes tell: a search that is cut off has proven nothing. */
export function fits(p: Problem, most = MOST_NODES): "yes" | "no" | "unknown" {
  if (countingClash(p)) return "no";
  const search = new Search(p, { anyPlan: true });
  let done = false;
  while (!done && search.nodes < most) done = search.step(SLICE);
  return search.bestChoice ? "yes" : done ? "no" : "unknown";
}

/** Whether any assignment exists, without looking for a cheap one. Throws when the search gives up. */
export function feasible(p: Problem): boolean {
  const answer = fits(p);
  if (answer === "unknown") throw new Error("the search for a plan was given up");
  return answer === "yes";
}
