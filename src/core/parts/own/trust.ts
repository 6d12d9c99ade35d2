import { asksPrint, decisive, printsOf, standingOf, type Part } from "../catalogue";
import { readiness } from "./readiness";

/** What is known of a part, counted: for the catalogue report and for whoever looks a part through. */
export interface Trust {
  id: string;
  certainty: Part["certainty"];
  /** Values by which something is judged, in all. */
  values: number;
  /** With a source of their own, or in a part that is sure as a whole. */
  sourced: number;
  /** Well known, by the part's source alone. */
  stated: number;
  /** Rules of thumb. */
  assumed: string[];
  /** Nobody checked them. */
  unchecked: string[];
  prints: number;
  /** How sure the commonest print is; null for what has none. */
  print: string | null;
  asks: boolean;
  /** Judgements that can be made, and what others want. */
  judges: string[];
  wants: string[];
}

/** Counts what is known of a part, value by value. */
export function trustOf(part: Part): Trust {
  const paths = decisive(part);
  const of = (test: (path: string) => boolean) => paths.filter(test);
  const standing = (path: string) => standingOf(part, path);
  const isSourced = (path: string) => standing(path).source !== null || standing(path).certainty === "high";
  const judged = readiness(part);
  return {
    id: part.id,
    certainty: part.certainty,
    values: paths.length,
    sourced: of(isSourced).length,
    stated: of((p) => !isSourced(p) && standing(p).certainty === "medium").length,
    assumed: of((p) => standing(p).certainty === "assumed"),
    unchecked: of((p) => !isSourced(p) && standing(p).certainty === "low"),
    prints: printsOf(part).length,
    print: printsOf(part)[0]?.certainty ?? null,
    asks: asksPrint(part),
    judges: judged.filter((r) => r.ready).map((r) => r.judgement),
    wants: judged.flatMap((r) => r.needs),
  };
}
