/** A class at its benches: what each does, how far it is, and what the teacher tells it. */
export * from "./events";
export * from "./state";
export * from "./codes";
