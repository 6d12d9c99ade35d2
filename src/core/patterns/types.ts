import type { CompanionKey, CompanionValue, Project, Rule, Sleep } from "../project";

/** A part of a pattern, as it is put into the project. */
export interface PatternPart {
  ref: string;
  part: string;
  label: string;
  options?: Readonly<Record<string, string | number>>;
  companions?: Partial<Record<CompanionKey, CompanionValue>>;
  /** Optional pins that are wired too. */
  wanted?: readonly string[];
  wire_cm?: number;
  /** The board that drives it, where there are two. */
  host?: string;
}

/** A way to go on from a finished pattern: what joins it, and what the parts then do besides. */
export interface Onward {
  id: string;
  says: string;
  parts: readonly PatternPart[];
  rules?: readonly Rule[];
  links?: readonly (readonly [string, string])[];
}

/** A small project that is sound as it stands, to begin with and to learn from. */
export interface Pattern {
  id: string;
  title: string;
  /** What it does, in the scene that it is for. */
  goal: string;
  /** What somebody learns who builds it. */
  learns: string;
  /** Boards that it is sound on; the first is taken where nobody says. */
  boards: readonly string[];
  /** What the board is set to, as an option of it. */
  board?: Readonly<Record<string, string>>;
  /** A board that sleeps between its rounds. */
  sleep?: Sleep;
  /** All but the board, which is B1. */
  parts: readonly PatternPart[];
  /** Joins that are part of the idea, such as a motor's own supply. */
  links?: readonly (readonly [string, string])[];
  houseRules?: Project["houseRules"];
  isolated?: Project["isolated"];
  place?: Project["brief"]["place"];
  /** What it does when. */
  rules: readonly Rule[];
  /** Own code, by target and place, where sentences do not say it. */
  code?: Project["code"];
  onward: readonly [Onward, Onward, Onward];
}
