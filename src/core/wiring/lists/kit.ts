import type { Kit } from "../../project";
import type { BomRow } from "../partslist";
import { spareKind, sparesFor } from "./spares";
import type { WireRow } from "./wires";

export interface KitRow {
  together: number;
  spares: number;
  buy: number;
}

/** Pieces of one kind for all benches: spares are a share of them all, and what is owned counts once. */
export function kitPart(b: BomRow, kit: Kit | undefined): KitRow {
  const together = b.quantity * (kit?.benches ?? 1);
  const spares = sparesFor(spareKind(b.part), together, kit);
  return { together, spares, buy: b.boxed ? 0 : Math.max(0, together + spares - b.owned) };
}

export function kitWire(w: WireRow, kit: Kit | undefined): KitRow {
  const together = w.quantity * (kit?.benches ?? 1);
  const spares = sparesFor("wires", together, kit);
  return { together, spares, buy: together + spares };
}
