import type { Project } from "../core/project";
import type { View } from "./view";

/** A new state of the project, with everything that the screens show of it. */
export interface Step {
  project: Project;
  view: View;
  says: string;
}
