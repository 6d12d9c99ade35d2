/** A course: several projects that share one kit. What to have, to order, to put into boxes, and to test when it comes back. */
export * from "./schema";
export * from "./types";
export * from "./course";
export * from "./file";
