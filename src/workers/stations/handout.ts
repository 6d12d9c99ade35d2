import {
  changesSince,
  itemsOf,
  lessonOf,
  stepsOf,
  type Lesson,
  type LessonChange,
  type SheetStep,
} from "../../core/lesson";
import { circuitOf } from "../../core/circuit";
import { patternParts, PATTERNS } from "../../core/patterns";
import { LESSON_DEFAULT, type LessonWish, type Project } from "../../core/project";
import { catalogue, need, needFor } from "../loading";

export interface LessonView {
  lesson: Lesson;
  /** What is other than on the last print; null: nothing was printed. */
  changes: LessonChange[] | null;
  /** What is remembered when it is printed now. */
  print: NonNullable<LessonWish["made"]>;
}

/** Hand-out: the lesson on a plan. */
export const handoutApi = {
  /** The run sheet as a bench of the lesson reads it. */
  async lessonSteps(project: Project): Promise<SheetStep[]> {
    await needFor(project);
    return stepsOf(circuitOf(project, catalogue), (project.lesson ?? LESSON_DEFAULT).level);
  },
  async lessonView(project: Project, at: string): Promise<LessonView> {
    await needFor(project);
    const pattern = PATTERNS.find((p) => p.id === project.pattern);
    if (pattern) await need(patternParts(pattern));
    const lesson = lessonOf(circuitOf(project, catalogue));
    const items = itemsOf(lesson);
    const made = project.lesson?.made;
    return { lesson, changes: made ? changesSince(made.items, items) : null, print: { at, plan: lesson.plan, items } };
  },
};
