import { keptPlaced } from "../core/build";
import type { Project } from "../core/project";
import { catalogue } from "./loading";
import { makeView, type View } from "./view";

/** A new state of the project, with everything that the screens show of it. */
export interface Step {
  project: Project;
  view: View;
  says: string;
}

/**
 * The project as it now is, its planned placement kept up with it, with its view; `says` is what was done, for the undo list.
 */
export function step(changed: Project, says: string): Step {
  const project = keptPlaced(changed, catalogue);
  return { project, view: makeView(project, catalogue), says };
}
