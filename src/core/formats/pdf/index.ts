/** Prints: the plan, its variant for learners and the answers, the breadboard in true size, tags. */
export * from "./plan";
export * from "./underlay";
export * from "./prints";
export type { Fonts, Paper } from "./sheet";
