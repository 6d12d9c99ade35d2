import { circuitOf, type Circuit } from "../circuit";
import type { Catalogue } from "../parts/catalogue";
import { houseRule, type Project } from "../project";
import { boardProblem, placeOne, propose, type Spots } from "./breadboard";
import { layoutProven } from "./runsheet";

/** Whether the build is one on breadboards with rails: then its parts get holes as soon as it is planned. */
const standsOnBoards = (p: Project): boolean =>
  houseRule(p, "firstBuild") === "breadboard" && houseRule(p, "sharing") === "rails";

/** Everything placed anew by the search, on as many boards as it takes. */
function placedAnew(c: Circuit): Project {
  const { project } = c;
  const split = project.breadboard?.split;
  const l = propose(c, undefined, {}, split ?? true);
  return {
    ...project,
    breadboard: { boards: [...l.sizes], at: l.spots, ...(split !== undefined && { split }), by: "plan" },
  };
}

/**
 * Keeps a placement that the planner made true to its parts, as they come, go and change: what stands, stands; what came gets
 * the best free place; where there is none, or something no longer fits, everything is placed anew. A placement that a person
 * has taken over is theirs.
 */
export function keptPlaced(project: Project, catalogue: Catalogue): Project {
  const now = project.breadboard;
  if (now?.by !== "plan") return project;
  const c = circuitOf(project, catalogue);
  const trouble = layoutProven(c)?.trouble ?? [];
  if (!trouble.length) return project;
  if (trouble.some((t) => t.kind !== "open")) return placedAnew(c);
  const p = boardProblem(c);
  const at: Spots = { ...now.at };
  for (const { ref } of p.items) {
    if (at[ref]) continue;
    const spot = placeOne(p, now.boards, at, ref);
    if (!spot) return placedAnew(c);
    at[ref] = spot;
  }
  const grown: Project = { ...project, breadboard: { ...now, at } };
  return layoutProven(circuitOf(grown, catalogue))?.trouble.length ? placedAnew(c) : grown;
}

/** A planned project with its parts placed, where it is built on breadboards and nobody has placed them. */
export function placedAsBuilt(project: Project, catalogue: Catalogue): Project {
  if (project.breadboard) return keptPlaced(project, catalogue);
  if (!standsOnBoards(project) || !project.links.length) return project;
  const c = circuitOf(project, catalogue);
  return boardProblem(c).items.length ? placedAnew(c) : project;
}
