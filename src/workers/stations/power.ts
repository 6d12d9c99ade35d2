import type { Project } from "../../core/project";
import { catalogue, need, needFor, summaries } from "../loading";
import { makePowerView, type PowerView } from "../power-view";

/** Power and levels. */
export const powerApi = {
  /** Everything of the Power station; supplies are loaded for the advice. */
  async power(project: Project): Promise<PowerView> {
    await needFor(project);
    const all = await summaries();
    await need(all.filter((x) => x.id.startsWith("supply/")).map((x) => x.id));
    return makePowerView(project, catalogue);
  },
};
