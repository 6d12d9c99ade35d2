import type { Step } from "./types";

/** A step as a machine goes over it: where a loop begins it sets its number, where it ends it goes back until all were had. */
export type Op =
  Exclude<Step, { do: "each" }> | { do: "first"; name: string } | { do: "next"; name: string; n: number; to: number };

/** Steps in one row; `from` is the place of the first. */
export function inARow(steps: readonly Step[], from = 0): Op[] {
  const out: Op[] = [];
  for (const s of steps) {
    if (s.do !== "each") {
      out.push(s);
      continue;
    }
    out.push({ do: "first", name: s.name });
    const to = from + out.length;
    out.push(...inARow(s.steps, to));
    out.push({ do: "next", name: s.name, n: s.n, to });
  }
  return out;
}

/** All steps of a list, those inside of loops too, without the loops. */
export const plainSteps = (steps: readonly Step[]): Exclude<Step, { do: "each" }>[] =>
  steps.flatMap((s) => (s.do === "each" ? plainSteps(s.steps) : [s]));
