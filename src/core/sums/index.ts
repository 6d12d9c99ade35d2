/** Small calculations for hook-ups: `list` holds them, `hookups` finds where a project needs one, `take` puts its answer in. */
export * from "./types";
export * from "./address";
export * from "./list";
export * from "./take";
export type { Drawing, Item, Point } from "./drawing";
export { ratingFor } from "./led";
export { hookupsOf } from "./hookups";
