import type { Problem } from "../problem";

/** What another solver has found so far: a choice for every need, that there is no plan, or nothing yet. */
export type Found = { choice: number[] } | "no plan" | null;

/** Another solver at work on a problem beside ours. */
export interface Proof {
  /** What it has found; never waits. */
  look(): Found;
  /** It is no longer needed. */
  drop(): void;
}

/** Starts another solver on a problem. */
export type Prover = (p: Problem) => Proof;

/** Our own search alone gets so long, milliseconds; nearly every plan is proven by then. */
export const ALONE_MS = 300;

let second: Prover | null = null;

/** Names the solver that helps out where ours takes long; without one ours works alone. Set once, by whoever runs the core. */
export function helpWith(prover: Prover | null) {
  second = prover;
}

/** Starts the second solver, where there is one. */
export const startSecond = (p: Problem): Proof | null => second?.(p) ?? null;
