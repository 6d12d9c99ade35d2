import type { Problem } from "../problem";
import { countingClash } from "./counting";
import { broken, extras } from "./legal";
import { ALONE_MS, startSecond, type Found, type Proof } from "./prover";
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
 * The answer of a second solver, held against our own rules: its plan where it is legal, or that there is none. What it
 * claims is not believed where our search has found better already.
 */
function taken(p: Problem, found: Found, best: number[] | null): Solution | null | undefined {
  if (found === null) return undefined;
  if (found === "no plan") return best ? undefined : null;
  const isWhole = found.choice.length === p.needs.length && found.choice.every((c, n) => p.needs[n]!.choices[c]);
  if (!isWhole || broken(p, found.choice).length) return undefined;
  const theirs = solutionOf(p, found.choice, true);
  const ours = best && solutionOf(p, best, true);
  // As cheap: the pins that our search prefers.
  return ours && ours.cost <= theirs.cost + 1e-6 ? ours : theirs;
}

/**
 * Solves in slices and pauses after each with the number of nodes so far; an answer of `true` stops it. Returns the
 * cheapest plan, or the best so far when stopped; null when it is proven that there is none; `"stopped"` when it was
 * stopped before it found one. `most_ms`: after so long the best plan so far is given, unproven. Where the proof takes
 * longer than usual, the second solver joins in, if there is one: the first proof wins.
 */
export function* solveSlowly(
  p: Problem,
  most_ms = Infinity,
): Generator<number, Solution | null | "stopped", boolean | undefined> {
  if (countingClash(p)) return null;
  const start = performance.now();
  const search = new Search(p);
  let proof: Proof | null = null;
  try {
    let done = search.step(SLICE);
    while (!done && search.nodes < MOST_NODES) {
      const spent = performance.now() - start;
      // A second solver that has just been started, from cold, is given as long again.
      if (spent > most_ms * (proof ? 2 : 1)) break;
      if (!proof && spent > ALONE_MS) proof = startSecond(p);
      const other = proof ? taken(p, proof.look(), search.bestChoice) : undefined;
      if (other !== undefined) return other;
      if (yield search.nodes) break;
      done = search.step(SLICE);
    }
    if (search.bestChoice) return solutionOf(p, search.bestChoice, done);
    return done ? null : "stopped";
  } finally {
    proof?.drop();
  }
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
