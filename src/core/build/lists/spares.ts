import type { PartKind } from "../../parts/catalogue";
import { partKind } from "../../parts/catalogue/kind";
import type { Kit, SpareKind } from "../../project";

/** What breaks, vanishes or burns, in per cent: cheap loose parts often, boards hardly ever. */
export const USUAL_SPARES: Record<SpareKind, number> = { loose: 20, wires: 20, modules: 0, boards: 0 };

const KIND: Record<PartKind, SpareKind | null> = {
  discrete: "loose",
  chip: "modules",
  connector: "loose",
  module: "modules",
  board: "boards",
  supply: null,
};
export const spareKind = (id: string): SpareKind | null => KIND[partKind(id)];

/** Pieces to add to `n` of a kind: its share, rounded up, so that there is one where the share is not nothing. */
export function sparesFor(kind: SpareKind | null, n: number, kit: Kit | undefined): number {
  if (!kind || n === 0) return 0;
  const percent = kit?.spares_percent[kind] ?? USUAL_SPARES[kind];
  return Math.ceil(Math.round(n * percent * 100) / 10_000);
}
