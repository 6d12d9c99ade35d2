import { checklist } from "../bench";
import type { Circuit } from "../circuit";
import { fingerprint, LESSON_DEFAULT, type LessonLevel, type LessonWish } from "../project";
import { extensionsOf } from "./extensions";
import { faultSet } from "./faults";
import { kitsOf } from "./kits";
import { PACE } from "./pace";
import { alwaysAsked, pickQuestions, questionsOf } from "./questions";
import { risksOf } from "./risks";
import { sessionsOf } from "./schedule";
import { stepsOf } from "./steps";
import type { Lesson } from "./types";

/** Of the time, so much is for questions; and each aim is asked about at least once. */
const FOR_QUESTIONS = 0.15;

const mostQuestions = (minutes: number, level: LessonLevel, aims: number) =>
  Math.max(aims, Math.floor((60 * minutes * FOR_QUESTIONS) / PACE[level].question));

/** Everything of a lesson on a plan: computed from the plan and from what the teacher chose, in minutes and plain words. */
export function lessonOf(c: Circuit, wish: LessonWish = c.project.lesson ?? LESSON_DEFAULT): Lesson {
  const { level, minutes, aims } = wish;
  const benches = c.project.kit?.benches ?? 1;
  const steps = stepsOf(c, level);
  const asked = pickQuestions(questionsOf(c, level, aims), mostQuestions(minutes, level, aims.length));
  const always = alwaysAsked(c);
  const questions = [...always.slice(0, 1), ...asked];
  const checks = checklist(c).filter((i) => i.when !== "bring-up").length;
  return {
    plan: fingerprint(c.project),
    title: c.project.title,
    goal: c.project.brief.goal,
    level,
    minutes,
    aims: [...aims],
    benches,
    sessions: sessionsOf({ steps, questions, checks, level, aims, minutes }),
    steps,
    questions,
    extensions: extensionsOf(c),
    risks: risksOf(c, level),
    kits: kitsOf(c, benches),
    faults: aims.includes("fault-finding") ? faultSet(c, level, benches) : [],
  };
}
