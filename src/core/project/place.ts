import { PLACES } from "./choices";
import type { Project } from "./schema";

/** The air around a build where it lives, °C: `min_C` at its coldest, `max_C` at its warmest, in its case. */
export const airOf = (project: Project) => PLACES[project.brief.place];
