import { evidenceOf } from "../bench";
import { isLaid, runSheet } from "../build/runsheet";
import { findings, verdict, type Verdict } from "../checks";
import type { Circuit } from "../circuit";

/** A project at a glance: how it stands and how far it got. */
export interface Glance {
  verdict: Pick<Verdict, "level" | "words">;
  /** The station at which work goes on. */
  at: "parts" | "board" | "pins" | "wiring" | "bench";
  parts: number;
  /** Done and all. */
  wired: [number, number];
  checked: [number, number];
}

/** Ticked and all. */
type Share = { done: number; of: number };

function shareOf(c: Circuit, list: "wires", ids: readonly string[]): Share {
  const all = new Set(ids);
  return { done: c.project.bench.filter((b) => b.list === list && b.done && all.has(b.id)).length, of: all.size };
}

function checksOf(c: Circuit): Share & { wrong: number } {
  const { done, of, wrong } = evidenceOf(c);
  return { done, of, wrong: wrong.length };
}

/** How many steps of the run sheet (looking and soldering included) and checks of the bench there are, and are ticked. */
export const progressOf = (c: Circuit): { wires: Share; checks: Share & { wrong: number } } => ({
  wires: shareOf(
    c,
    "wires",
    runSheet(c).map((r) => r.id),
  ),
  checks: checksOf(c),
});

/** How a project stands and how far it got: its verdict, the station where work goes on, the shares that are wired and checked. */
export function glanceAt(c: Circuit): Glance {
  const { project } = c;
  const v = verdict(c, findings(c));
  const pair = (s: Share): [number, number] => [s.done, s.of];
  const wired = pair(
    shareOf(
      c,
      "wires",
      runSheet(c).flatMap((r) => (isLaid(r) ? [r.id] : [])),
    ),
  );
  const checked = pair(checksOf(c));
  const at = !project.parts.length
    ? "parts"
    : !c.netlist.expanded.hosts.length
      ? "board"
      : v.open
        ? "pins"
        : wired[0] < wired[1]
          ? "wiring"
          : "bench";
  return { verdict: { level: v.level, words: v.words }, at, parts: project.parts.length, wired, checked };
}
