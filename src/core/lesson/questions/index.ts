import type { Circuit } from "../../circuit";
import type { LessonAim, LessonLevel } from "../../project";
import type { Question } from "../types";
import { bus } from "./bus";
import { circuit } from "./circuit";
import { debouncing } from "./debouncing";
import { faultFinding } from "./fault-finding";
import { levels } from "./levels";
import { meter } from "./meter";
import { seriesParallel } from "./series-parallel";
import { supplyQuestions } from "./supply";
import type { Asker } from "./types";

/** Who asks about what. Adding an aim is a file and a line here. */
const ASKERS: readonly Asker[] = [circuit, seriesParallel, levels, bus, debouncing, meter, faultFinding];

/** Every question that a plan has an answer to, by aim, in the order of the aims. */
export function questionsOf(c: Circuit, level: LessonLevel, aims: readonly LessonAim[]): Question[] {
  return ASKERS.filter((a) => aims.includes(a.aim)).flatMap((a) =>
    a.ask(c, level).map((q) => ({ ...q, id: `${a.aim}: ${q.id}`, aim: a.aim })),
  );
}

/** So many that all aims come up in turn: the first of each, then the second. */
export function pickQuestions(list: readonly Question[], most: number): Question[] {
  const aims = [...new Set(list.map((q) => q.aim))];
  const rows = aims.map((a) => list.filter((q) => q.aim === a));
  const turn = Array.from({ length: Math.max(0, ...rows.map((r) => r.length)) }, (_, k) =>
    rows.flatMap((r) => (r[k] ? [r[k]] : [])),
  ).flat();
  const chosen = new Set(turn.slice(0, most));
  return list.filter((q) => chosen.has(q));
}

/** The question that comes before any power, whatever else is asked. */
export const alwaysAsked = (c: Circuit): Question[] =>
  supplyQuestions(c).map((q) => ({ ...q, id: `supply: ${q.id}`, aim: "meter" as const }));
