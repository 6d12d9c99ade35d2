import {
  boardsFor,
  buildIdea,
  ideaParts,
  offersFor,
  readIdea,
  thingsOf,
  VERBS,
  type Built,
  type Choice,
  type Hints,
  type Offer,
  type OfferedBoard,
  type Reading,
  type Verb,
} from "../../core/idea";
import type { Project } from "../../core/project";
import { catalogue, need, needFor } from "../loading";
import { step, type Step } from "../step";

/** What is proposed for some things. */
export interface Proposal {
  offers: Offer[];
  boards: OfferedBoard[];
}

/** Brief: from an idea to a parts list. */
export const ideaApi = {
  /** What the words mean: things of the table, in their order, and what was not understood. */
  ideaRead(text: string): Reading {
    return readIdea(text);
  },

  /** Everything that can be wished, by verb. */
  ideaThings(): { verb: Verb; name: string; asks: string; things: { id: string; name: string }[] }[] {
    return (Object.keys(VERBS) as Verb[]).map((verb) => ({
      verb,
      ...VERBS[verb],
      things: thingsOf(verb).map(({ id, name }) => ({ id, name })),
    }));
  },

  /** Ways for each thing, and boards where the project has none. */
  async ideaOffers(project: Project, things: string[], hints: Hints): Promise<Proposal> {
    await needFor(project);
    await need(ideaParts(things, project));
    return {
      offers: offersFor(things, project, catalogue, hints),
      boards: boardsFor(things, project, catalogue, hints),
    };
  },

  /** The project with what was chosen, planned, and with what the checks ask for. */
  async ideaBuild(
    project: Project,
    choices: Choice[],
    hints: Hints,
    goal: string,
    board?: string,
  ): Promise<Step & Omit<Built, "project">> {
    await needFor(project);
    await need(
      ideaParts(
        choices.map((c) => c.thing),
        project,
      ),
    );
    const b = buildIdea(project, catalogue, { choices, hints, goal, ...(board !== undefined && { board }) });
    const { project: built, ...rest } = b;
    return { ...step(built, "parts from an idea"), ...rest };
  },
};
