import type { Project } from "../../core/project";
import type { Step } from "../step";
import type { Slice, View } from "../view";
import { apply } from "./difference";
import { isProject, isSentStep, type SentProject, type SentSlices, type SentStep } from "./messages";

/** Thrown when a sending was missed: ask for everything again. */
export class Missed extends Error {}

/** The page's end: gives projects their numbers, and puts steps together from what changed. */
export function makeReceiver() {
  const numbers = new WeakMap<Project, number>();
  let next = 2;
  let received = 0;
  let project: Project | undefined;
  let slices: Partial<Record<Slice, unknown>> = {};

  const slicesFrom = (s: SentSlices): Partial<View> => {
    if (s.after === -1) {
      slices = {};
      received = 0;
    } else if (s.after !== received) throw new Missed("a sending was missed");
    received++;
    const out: Partial<Record<Slice, unknown>> = {};
    for (const [name, change] of s.slices) out[name] = slices[name] = apply(slices[name], change);
    return out as Partial<View>;
  };
  const stepFrom = (s: SentStep, asked: Project | undefined): Step => {
    const view = slicesFrom(s) as View;
    const here = s.project ? (apply(project, s.project.change) as Project) : asked!;
    if (s.project) project = here;
    // A project that came back unchanged keeps the number that it has.
    if (!numbers.has(here)) numbers.set(here, s.document);
    return { ...s.rest, project: here, view } as unknown as Step;
  };

  return {
    /** Arguments as they go out; `whole` sends the text of every project along. */
    pack: (args: readonly unknown[], whole = false): unknown[] =>
      args.map((x) => {
        if (!isProject(x)) return x;
        const document = numbers.get(x);
        if (document !== undefined && !whole) return { document } satisfies SentProject;
        const fresh = next;
        next += 2;
        numbers.set(x, fresh);
        return { document: fresh, value: x } satisfies SentProject;
      }),
    /** An answer as it was meant. @throws Missed */
    unpack: (answer: unknown, asked: Project | undefined): unknown => {
      if (isSentStep(answer)) return stepFrom(answer, asked);
      const inner = (answer as { step?: unknown } | null)?.step;
      return isSentStep(inner) ? { ...(answer as object), step: stepFrom(inner, asked) } : answer;
    },
    slices: slicesFrom,
  };
}
