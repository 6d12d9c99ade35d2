import { layoutOf, type Layout } from "./layout";
import type { BoardProblem, Item } from "./problem";
import type { SizeId } from "./sizes";
import type { Spot, Spots } from "./spots";

/** A jumper is worth so much wire, millimetres; what does not work is worth any amount of it. */
const JUMPER_MM = 10;
const TROUBLE_MM = 10_000;
/** How many placements are laid out in full. */
const TRIES = 150;
/** Rows that a part is tried up and down. */
const REACH = 5;

export const priceOf = (l: Layout) => l.trouble.length * TROUBLE_MM + l.jumpers * JUMPER_MM + l.wire_mm;

/** Where a part could stand instead, nearest first: some rows up or down, or on the other half. */
function around(item: Item, spot: Spot): Spot[] {
  const at = (rows: number): Spot => ({
    ...spot,
    row: spot.row + rows,
    ...(spot.to && { to: { ...spot.to, row: spot.to.row + rows } }),
  });
  const steps = Array.from({ length: REACH }, (_, i) => [i + 1, -i - 1]).flat();
  const moved = steps.map(at).filter((s) => s.row >= 1);
  if (item.print.kind === "strip")
    moved.push(
      ...[0, ...steps]
        .map((n): Spot => ({ ...at(n), half: spot.half === "left" ? "right" : "left" }))
        .filter((s) => s.row >= 1),
    );
  return moved;
}

/**
 * The search counts wires before it knows their holes: which rail pieces need a bridge, which row has no hole left, what a body
 * hides. Here each part is tried at places near its own with every wire laid, and what is really better is kept. What is held
 * stays; deterministic, unless it is stopped at `until` (of `performance.now()`): then with the best until there.
 */
export function polish(
  p: BoardProblem,
  sizes: SizeId[],
  spots: Spots,
  held: ReadonlySet<string>,
  split: boolean,
  until = Infinity,
): Layout {
  let best = layoutOf(p, sizes, spots, split);
  let price = priceOf(best);
  let tries = 0;
  // A capacitor stands at its chip's pin: neither moves without the other.
  const paired = new Set(p.items.flatMap((i) => (i.near ? [i.ref, i.near.ref] : [])));
  for (let changed = true; changed && tries < TRIES;) {
    changed = false;
    for (const item of p.items) {
      const now = best.spots[item.ref];
      // A board stays at its end: its socket must be reached.
      if (!now || held.has(item.ref) || paired.has(item.ref) || item.inst.part.board) continue;
      for (const spot of around(item, now)) {
        if (tries++ >= TRIES || performance.now() > until) return best;
        const next = layoutOf(p, sizes, { ...best.spots, [item.ref]: spot }, split);
        const cost = priceOf(next);
        if (cost >= price - 1e-9) continue;
        [best, price, changed] = [next, cost, true];
        break;
      }
    }
  }
  return best;
}
