import type { Project } from "../../core/project";
import type { Step } from "../step";
import { FRAME, type Slice, type View } from "../view";
import { difference } from "./difference";
import { isProject, isSentProject, UNKNOWN_PROJECT, type SentSlices, type SentStep } from "./messages";

/** So many projects are known by number: more than anybody undoes. */
const MOST_KNOWN = 400;

const isStep = (x: unknown): x is Step & Record<string, unknown> =>
  typeof x === "object" && x !== null && isProject((x as Step).project) && typeof (x as Step).view === "object";

/**
 * The worker's end: projects are known by number, and of a step only that is sent which the other end watches and does not
 * have yet.
 */
export function makeSender() {
  const known = new Map<number, Project>();
  /** What the other end has: the project and every slice as sent last. */
  let has: { project: Project | null; slices: Partial<Record<Slice, unknown>> } = { project: null, slices: {} };
  let sent = 0;
  /** Odd numbers are given here, even ones at the other end. */
  let next = 1;
  let watched: readonly Slice[] = [];
  let last: { step: Step & Record<string, unknown>; document: number } | null = null;

  const keep = (document: number, project: Project) => {
    known.set(document, project);
    if (known.size > MOST_KNOWN) known.delete(known.keys().next().value!);
  };
  const slicesOf = (view: View, names: readonly Slice[]): SentSlices => {
    const slices = names.flatMap((name): SentSlices["slices"] => {
      const change = difference(has.slices[name], view[name]);
      has.slices[name] = view[name];
      return [[name, change]];
    });
    return { slices, after: sent++ };
  };
  const stepOf = (step: Step & Record<string, unknown>, asked: Project | undefined): SentStep => {
    const { project, view, ...rest } = step;
    const same = asked !== undefined && difference(asked, project) === null;
    const document = next;
    next += 2;
    keep(document, project);
    last = { step, document };
    const change = same ? null : { change: difference(has.project ?? undefined, project) };
    if (!same) has.project = project;
    return { step: true, document, project: change, rest, ...slicesOf(view, [...new Set([...FRAME, ...watched])]) };
  };

  return {
    /** Arguments as they were meant: numbers become the projects that they stand for. */
    unpack: (args: readonly unknown[]): unknown[] =>
      args.map((x) => {
        if (!isSentProject(x)) return x;
        if (x.value) keep(x.document, x.value);
        const project = known.get(x.document);
        if (!project) throw new Error(UNKNOWN_PROJECT);
        return project;
      }),
    /** An answer as it goes out: a step, one level down at most, becomes what changed. */
    pack: (answer: unknown, asked: Project | undefined): unknown => {
      if (isStep(answer)) return stepOf(answer, asked);
      const inner = (answer as { step?: unknown } | null)?.step;
      return isStep(inner) ? { ...(answer as object), step: stepOf(inner, asked) } : answer;
    },
    /** From now on these are sent with every step; here they are for a project. */
    look: (view: View, names: readonly Slice[]): SentSlices => {
      watched = names;
      return slicesOf(view, names);
    },
    /** The last step again, whole: the other end has missed something. */
    again: (): SentStep | null => {
      if (!last) return null;
      has = { project: null, slices: {} };
      // Both ends count anew from here.
      sent = 0;
      const { project, view, ...rest } = last.step;
      has.project = project;
      return {
        step: true,
        document: last.document,
        project: { change: { v: project } },
        rest,
        ...slicesOf(view, [...new Set([...FRAME, ...watched])]),
        after: -1,
      };
    },
  };
}
