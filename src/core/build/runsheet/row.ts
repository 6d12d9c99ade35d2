import type { PhaseId } from "./phases";

/** One row of the run sheet: a wire, a leg, a cable, a part to place, a step, a checkpoint. */
export interface RunRow {
  /** Stable across edits that do not touch this wire; ticks are kept by it. */
  id: string;
  step: number;
  phase: PhaseId;
  /** `row`: joined by a row of the breadboard, nothing to lay; it is listed for other tools only. */
  kind: "look" | "solder" | "turn" | "wire" | "leg" | "cable" | "row";
  from: string;
  to: string;
  fromWords: string;
  toWords: string;
  net: string;
  colour: string;
  length_cm: number;
  endA: string;
  endB: string;
  /** Holes of the breadboard; empty where an end is not on one. */
  holeA: string;
  holeB: string;
  /** American wire gauge; 0 where no wire is laid, as for a part's own leg. */
  awg: number;
  note: string;
  /** Why this step comes now, and what to look at before going on. */
  why: string;
  check: string;
}
/** Whether a row lays something between two points; the others are things to do or to look at. */
export const isLaid = (r: RunRow): boolean => r.kind === "wire" || r.kind === "leg" || r.kind === "cable";

/** Rows of a group as they are printed: what is laid as tables, steps and checkpoints between them, in their order. */
export function inRuns(rows: readonly RunRow[]): RunRow[][] {
  const out: RunRow[][] = [];
  for (const r of rows) {
    const last = out.at(-1);
    if (last && isLaid(last[0]!) === isLaid(r)) last.push(r);
    else out.push([r]);
  }
  return out;
}
