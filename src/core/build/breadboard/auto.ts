import { circuitOf } from "../../circuit";
import type { Catalogue } from "../../parts/catalogue";
import { houseRule, type Project } from "../../project";
import { boardProblem } from "./problem";
import { propose } from "./propose";

/** Whether the build is one on breadboards with rails: then its parts get holes as soon as it is planned. */
export const standsOnBoards = (p: Project): boolean =>
  houseRule(p, "firstBuild") === "breadboard" && houseRule(p, "sharing") === "rails";

/**
 * The planned project with its parts placed, where it is built on breadboards: all of them where nothing has a place yet, else
 * those that came since `before`. What has a place keeps it, and what somebody took off the board stays off.
 */
export function placedAsBuilt(before: Project, planned: Project, catalogue: Catalogue): Project {
  if (!standsOnBoards(planned) || !planned.links.length) return planned;
  const c = circuitOf(planned, catalogue);
  const { items } = boardProblem(c);
  if (!items.length) return planned;
  const now = planned.breadboard;
  if (!now) {
    const l = propose(c);
    return { ...planned, breadboard: { boards: [...l.sizes], at: l.spots } };
  }
  const had = circuitOf(before, catalogue).netlist.expanded.instances;
  const fresh = items.filter((i) => !now.at[i.ref] && !had.has(i.ref)).map((i) => i.ref);
  if (!fresh.length) return planned;
  const l = propose(c, now.boards, now.at, now.split ?? true);
  const at = Object.fromEntries(fresh.flatMap((ref) => (l.spots[ref] ? [[ref, l.spots[ref]]] : [])));
  return { ...planned, breadboard: { ...now, at: { ...now.at, ...at } } };
}
