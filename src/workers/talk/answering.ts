import type { Project } from "../../core/project";
import { catalogue, needFor } from "../loading";
import { makeView, type Slice } from "../view";
import { isProject } from "./messages";
import { makeSender } from "./sender";
import type { SentSlices, SentStep } from "./messages";

/** The functions of an api as the page calls them: with projects by number, answering by difference. */
export function answering<A extends Record<string, (...args: never[]) => unknown>>(api: A) {
  const sender = makeSender();
  const out: Record<string, (...args: unknown[]) => unknown> = {};
  for (const [name, work] of Object.entries(api))
    out[name] = async (...sent) => {
      const args = sender.unpack(sent);
      const answer = await (work as (...a: unknown[]) => unknown)(...args);
      return sender.pack(answer, args.find(isProject));
    };
  return {
    ...out,
    /** Watches these slices, and gives them for a project. */
    look: async (project: unknown, names: Slice[]): Promise<SentSlices> => {
      const [p] = sender.unpack([project]) as [Project];
      await needFor(p);
      return sender.look(makeView(p, catalogue), names);
    },
    /** Whether anybody is there: long work lets it in between its slices. */
    alive: (): void => undefined,
    again: (): SentStep | null => sender.again(),
  };
}
