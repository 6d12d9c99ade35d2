import type { Circuit } from "../../circuit";
import { layoutOf, type Layout } from "./layout";
import { placeAll, SETS } from "./place";
import { polish, priceOf } from "./polish";
import { boardProblem } from "./problem";
import type { SizeId } from "./sizes";
import type { Spots } from "./spots";

/**
 * The best placement that the search finds, with its holes and wires; given boards and spots are kept. Every part is placed, but
 * nothing is made better after `until` (of `performance.now()`).
 */
export function propose(c: Circuit, sizes?: SizeId[], given: Spots = {}, split = true, until = Infinity): Layout {
  const p = boardProblem(c);
  const made = (set?: SizeId[]) => {
    const placed = placeAll(p, set, given, (on, spots) => priceOf(layoutOf(p, [...on], spots, split)), until);
    return polish(p, placed.sizes, placed.spots, new Set(Object.keys(given)), split, until);
  };
  let best = made(sizes);
  // The smallest boards that take the parts may lack rails or holes for the wires: then the next larger ones.
  const larger = sizes?.length ? [] : SETS.slice(SETS.findIndex((s) => s.join() === best.sizes.join()) + 1);
  for (const set of larger) {
    if (!best.trouble.length) break;
    const next = made(set);
    if (next.trouble.length < best.trouble.length) best = next;
  }
  return best;
}

/** The placement that the project carries; null when it has none. */
export function layoutInProject(c: Circuit): Layout | null {
  const b = c.project.breadboard;
  return b ? layoutOf(boardProblem(c), b.boards, b.at, b.split ?? true) : null;
}
