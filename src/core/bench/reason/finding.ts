import type { How, Hypothesis, Reason } from "./reason";
import { isTold, type Observation } from "./questions";

/** How a fault was found by always asking what tells most. */
export interface Found {
  asked: readonly Observation[];
  /** How many times somebody measured; the program's lines are read at one go and count once. */
  steps: number;
  /** Whether the fault, or one that nothing allowed can tell from it, came first. */
  first: boolean;
  /** After how many measurements it came first and stayed so; the last ones only make sure. */
  led: number;
}

/** Sure enough to go and mend. */
const SURE = 0.9;
const MOST_ASKED = 60;

/**
 * Finds a hidden fault: each step the measurement that tells most, answered as the build with that fault answers. Ends when
 * the explanations that nothing allowed can tell from it are first and sure.
 */
export function find(r: Reason, hidden: Hypothesis, how: How = {}): Found {
  const asked: Observation[] = [];
  const own = r.signature(hidden);
  const by = new Map(r.singles.map((h) => [h.faults[0]?.id ?? "", h]));
  const alike = (s: { faults: readonly { id: string }[] }) =>
    s.faults.length < 2 && r.signature(by.get(s.faults[0]?.id ?? "")!) === own;
  let led = 0;
  for (let step = 0; step <= MOST_ASKED; step++) {
    const j = r.judge(asked, how);
    const share = j.suspects.filter(alike).reduce((a, s) => a + s.share, 0);
    const first = alike(j.suspects[0]!);
    if (!first) led = step + 1;
    if ((first && share >= SURE) || !j.next) return { asked, steps: step, first, led };
    const together = isTold(j.next.q) ? r.questions.filter((q) => isTold(q) && (how.allowed?.(q) ?? true)) : [j.next.q];
    for (const q of together) {
      const seen = r.shows(hidden, q);
      if (seen !== null) asked.push({ q, seen });
    }
  }
  return { asked, steps: MOST_ASKED, first: false, led };
}

/** What no policy can beat on average with answers of two kinds: the entropy of what is possible, by what can be told apart, bits. */
export function bound(r: Reason, among: readonly Hypothesis[]): number {
  const by = new Map<string, number>();
  for (const h of among) by.set(r.signature(h), (by.get(r.signature(h)) ?? 0) + h.weight);
  const sum = [...by.values()].reduce((a, b) => a + b, 0);
  return [...by.values()].reduce((H, w) => H - (w / sum) * Math.log2(w / sum), 0);
}
