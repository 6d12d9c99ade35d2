import type { Group, Part } from "../../../parts/catalogue";
import type { Order, Problem } from "../problem";

const numbered = (keys: string[], prefix: string) =>
  keys
    .filter((k) => new RegExp(`^${prefix}\\d+$`).test(k))
    .sort((a, b) => Number(a.slice(prefix.length)) - Number(b.slice(prefix.length)));

/** Lines of a group that like to stand in a row, by kind of group. */
const ROWS: Partial<Record<Group["kind"], (keys: string[]) => { keys: string[]; says: string }[]>> = {
  parallel: (k) => [{ keys: numbered(k, "d"), says: "data lines" }],
  encoder: () => [{ keys: ["a", "b"], says: "A and B" }],
  matrix: (k) => [
    { keys: numbered(k, "row"), says: "rows" },
    { keys: numbered(k, "col"), says: "columns" },
  ],
};

/** Every row of neighbouring pins, in both directions, into which `count` lines fit; on short headers, as far as it goes. */
function rowsOfPins(p: Problem, count: number): number[][] {
  const out: number[][] = [];
  for (const header of new Set(p.pins.map((x) => x.header))) {
    const row = p.pins.flatMap((x, i) => (x.header === header ? [i] : []));
    for (const list of row.length > 1 ? [row, [...row].reverse()] : [row])
      for (let s = 0; s === 0 || s + count <= list.length; s++)
        out.push(Array.from({ length: count }, (_, k) => list[s + k] ?? -1));
  }
  return out;
}

/** The orders that a part's groups ask for, for those lines that are needs of the problem. */
export function ordersOf(p: Problem, ref: string, part: Part): Order[] {
  return part.groups.flatMap((g) =>
    (ROWS[g.kind]?.(Object.keys(g.pins)) ?? []).flatMap(({ keys, says }): Order[] => {
      const needs = keys.map((k) => p.needs.findIndex((n) => n.id === `${ref}.${g.pins[k]}`));
      if (needs.length < 2 || needs.includes(-1)) return [];
      // Rows that none of the lines can use are no choice.
      const anchors = rowsOfPins(p, needs.length).filter((a) =>
        a.some((pin, k) => p.needs[needs[k]!]!.choices.some((c) => c.pin === pin)),
      );
      return anchors.length ? [{ ref, says, needs, anchors }] : [];
    }),
  );
}
