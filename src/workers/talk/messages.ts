import type { Project } from "../../core/project";
import type { Slice } from "../view";
import type { Change } from "./difference";

/** A project that both ends know, by its number; with its text when one end may not know it. */
export interface SentProject {
  document: number;
  value?: Project;
}

/** Slices of the view of a project, told as what changed since what was sent last. */
export interface SentSlices {
  slices: [name: Slice, change: Change][];
  /** Which sending this builds on; the receiver asks for everything when it has missed one. */
  after: number;
}

/** A step of the project, told as what changed. */
export interface SentStep extends SentSlices {
  step: true;
  document: number;
  /** Null when the project is the very one that was asked about. */
  project: { change: Change } | null;
  /** What else the answer says. */
  rest: Record<string, unknown>;
}

export const isSentProject = (x: unknown): x is SentProject =>
  typeof x === "object" && x !== null && typeof (x as SentProject).document === "number" && !("step" in x);
export const isSentStep = (x: unknown): x is SentStep =>
  typeof x === "object" && x !== null && (x as SentStep).step === true && "slices" in x;
export const isProject = (x: unknown): x is Project =>
  typeof x === "object" && x !== null && (x as Project).format === "young-lattice-project";
/** What a call ends with when the worker no longer knows a project by its number: it is sent again, whole. */
export const UNKNOWN_PROJECT = "this project is not known here";
