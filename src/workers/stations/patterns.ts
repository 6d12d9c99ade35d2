import {
  beginPattern,
  goOn,
  patternById,
  patternParts,
  PATTERNS,
  toLookAt,
  type Looked,
  type ToLookAt,
} from "../../core/patterns";
import { lessonOf } from "../../core/lesson";
import { placedAsBuilt } from "../../core/build";
import { circuitOf } from "../../core/circuit";
import { rulesView } from "../../core/firmware/rules/view";
import type { Project } from "../../core/project";
import { catalogue, need, needFor } from "../loading";
import { step, type Step } from "../step";

export interface PatternRow {
  id: string;
  title: string;
  goal: string;
  learns: string;
  boards: string[];
}
export interface PatternView {
  row: PatternRow;
  boards: { part: string; name: string }[];
  board: string;
  parts: { ref: string; label: string; name: string }[];
  /** What it does, in sentences. */
  does: string[];
  /** Wires to lay and minutes to build it for somebody of 11 to 14, with checks and upload. */
  wires: number;
  minutes: number;
  verdict: string;
  look: ToLookAt[];
  onward: { id: string; says: string }[];
  /** The project as it would be begun. */
  project: Project;
}

/** What a class has settled for new projects. */
export type Settled = { rules: Project["houseRules"]; fixed: NonNullable<Project["fixedRules"]> } | null;
/** What every project of a machine begins with. */
export interface StartsWith {
  settled: Settled;
  drawer: Project["drawer"] | null;
}

const rowOf = (p: (typeof PATTERNS)[number]): PatternRow => ({
  id: p.id,
  title: p.title,
  goal: p.goal,
  learns: p.learns,
  boards: [...p.boards],
});

/** Patterns to begin with, and the ways to go on from one. */
export const patternsApi = {
  patterns(): PatternRow[] {
    return PATTERNS.map(rowOf);
  },
  /** A pattern on a board, planned and judged; null where there is none of that name. */
  async patternView(
    id: string,
    board?: string,
    looked: Looked = {},
    { settled, drawer }: StartsWith = { settled: null, drawer: null },
  ): Promise<PatternView | null> {
    const pattern = patternById(id, PATTERNS);
    if (!pattern) return null;
    await need(patternParts(pattern));
    const on = board !== undefined && pattern.boards.includes(board) ? board : pattern.boards[0]!;
    const begun = beginPattern(pattern, catalogue, {
      board: on,
      looked,
      ...(drawer && { drawer }),
      ...(settled && { houseRules: settled.rules }),
    });
    const project: Project = settled ? { ...begun.project, fixedRules: settled.fixed } : begun.project;
    // What the checks put in may be of kinds that the pattern does not name.
    await needFor(begun.project);
    const c = circuitOf(begun.project, catalogue);
    const lesson = lessonOf(c, { level: "11-14", minutes: 480, aims: ["circuit"] });
    return {
      row: rowOf(pattern),
      boards: pattern.boards.map((part) => ({ part, name: catalogue.get(part)?.name ?? part })),
      board: on,
      parts: begun.project.parts.map((p) => ({
        ref: p.ref,
        label: p.label ?? p.ref,
        name: catalogue.get(p.part)?.name ?? p.part,
      })),
      does: rulesView(c).rules.map((r) => r.says),
      wires: lesson.steps.filter((s) => s.net).length,
      minutes: lesson.sessions.reduce((n, s) => n + s.minutes, 0),
      verdict: begun.verdict,
      look: toLookAt(begun.project, catalogue),
      onward: pattern.onward.map(({ id: way, says }) => ({ id: way, says })),
      project,
    };
  },
  /** Ways to go on of the pattern of a pattern; none where there is no such pattern. */
  async placed(project: Project): Promise<Project> {
    await needFor(project);
    return placedAsBuilt(project, catalogue);
  },
  onwardOf(pattern: string): { id: string; says: string }[] {
    return patternById(pattern, PATTERNS)?.onward.map(({ id, says }) => ({ id, says })) ?? [];
  },
  /** Joins one of them; `clash` says why where it does not fit, and then nothing is changed. */
  async joinOnward(
    project: Project,
    id: string,
  ): Promise<Step & { clash: string | null; did: string[]; verdict: string }> {
    const pattern = patternById(project.pattern ?? "", PATTERNS);
    const onward = pattern?.onward.find((o) => o.id === id);
    await needFor(project);
    if (!pattern || !onward)
      return { ...step(project, ""), clash: "there is no such way to go on", did: [], verdict: "" };
    await need(patternParts(pattern));
    const g = goOn(project, onward, catalogue);
    const next = g.clash ? project : g.project;
    return { ...step(next, "a way to go on"), clash: g.clash, did: g.did, verdict: g.verdict };
  },
};
