/** The shipped parts: boards first, then chips, modules, loose parts, supplies and connectors, each kind by id. */
import * as parts from "./parts";

const KINDS = ["board", "chip", "module", "discrete", "supply", "connector"];
const rank = (p: { id: string }) => KINDS.indexOf(p.id.split("/")[0]!);

export const shippedParts: readonly unknown[] = (Object.values(parts) as { id: string }[]).sort(
  (a, b) => rank(a) - rank(b) || (a.id < b.id ? -1 : 1),
);
