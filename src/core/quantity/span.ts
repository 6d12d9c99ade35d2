import { count } from "./count";

/** Whole seconds in the largest unit that has no rest: `span(90)` = `90 seconds`, `span(900)` = `15 minutes`, `span(7200)` = `2 hours`. */
export const span = (s: number): string =>
  s % 3600 === 0 ? count(s / 3600, "hour") : s % 60 === 0 ? count(s / 60, "minute") : count(s, "second");
