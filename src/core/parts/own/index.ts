/** Own parts: what a person fills in from a data sheet page, read, judged and turned into a part definition. */
export * from "./values";
export * from "./pins";
export * from "./roles";
export * from "./schema";
export * from "./draft";
export * from "./board";
export type { DraftProblem } from "./build";
export * from "./readiness";
export * from "./trust";
