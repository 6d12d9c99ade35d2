import { LESSON_AIMS, LESSON_LEVELS } from "../../../project";
import type { Lesson } from "../../../lesson";

/** Who it is for and to what end, in a line. */
export const forWhom = (l: Lesson): string =>
  `For ages ${LESSON_LEVELS[l.level].name}, ${l.minutes} minutes a meeting: ${l.aims.map((a) => LESSON_AIMS[a].name).join(", ")}.`;
