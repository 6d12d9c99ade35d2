/** A lesson on a plan: sheets, questions with answers, time, risks, kits, faults to find; and what changed since it was printed. */
export * from "./types";
export * from "./lesson";
export * from "./changes";
export { PACE } from "./pace";
export { stepsOf } from "./steps";
export { DEFERS } from "./risks";
export { questionsOf, alwaysAsked } from "./questions";
export { paperTask, MOST_JOINS, type PaperTask } from "./paper";
