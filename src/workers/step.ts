import type { Project } from "../core/project";
import { catalogue } from "./loading";
import { makeView, type View } from "./view";

/** A new state of the project, with everything that the screens show of it. */
export interface Step {
  project: Project;
  view: View;
  says: string;
}

/** The project as it now is, with its view; `says` is what was done, for the undo list. */
export const step = (project: Project, says: string): Step => ({ project, view: makeView(project, catalogue), says });
