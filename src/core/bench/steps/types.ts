import type { Question } from "../reason/questions";
import type { Unit } from "./reading";

export const STAGES = ["before power", "first power", "bring-up"] as const;
export type Stage = (typeof STAGES)[number];

/** One thing to measure or to look at: between which points, what a sound build shows, and when. */
export interface CheckItem {
  id: string;
  when: Stage;
  what: string;
  from: string;
  to: string;
  /** What a sound build shows: a band, or a word for a beep and for what is seen. */
  low: number | null;
  high: number | null;
  word: string | null;
  unit: Unit;
  why: string;
  /** The same as a question to the build; absent for what is no matter of reasoning. */
  q?: Question;
}
