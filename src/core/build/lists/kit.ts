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

/** Everything to lay out for all benches, as a table for a file: parts first, then wires. */
export function kitTable(
  bom: readonly BomRow[],
  wires: readonly WireRow[],
  kit: Kit | undefined,
): { fields: string[]; rows: (string | number)[][] } {
  const n = kit?.benches ?? 1;
  const line = (what: string, value: string, each: number, k: KitRow, instead = "") => [
    what,
    value,
    each,
    n,
    k.together,
    k.spares,
    k.buy,
    instead,
  ];
  return {
    fields: ["what", "value", "per_bench", "benches", "together", "spares", "buy", "instead"],
    rows: [
      ...bom
        .filter((b) => b.part !== "wire")
        .map((b) => line(b.name, b.value, b.quantity, kitPart(b, kit), b.instead.join("; "))),
      ...wires.map((w) => line(w.kind, `${w.colour}, ${w.length_cm} cm, ${w.ends}`, w.quantity, kitWire(w, kit))),
    ],
  };
}
