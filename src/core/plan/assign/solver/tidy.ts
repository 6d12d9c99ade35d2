import type { Problem, ProblemNeed } from "../problem";
import { solveSlowly, type Solution } from "./solve";

/** Rows that are tried at most, cheapest first, for one set of alike parts. */
const MOST_ROWS = 12;
/** Nodes for the others that have to make room. */
const MOST_MS = 20;

/** Needs whose parts are alike and could change places: the same wish at the same price everywhere, one pin each. */
function alikeSets(p: Problem): number[][] {
  const perPart = new Map<string, number>();
  for (const n of p.needs) perPart.set(n.ref, (perPart.get(n.ref) ?? 0) + 1);
  const sets = new Map<string, number[]>();
  p.needs.forEach((n, i) => {
    if (n.group !== null || n.share || n.locked || n.present || perPart.get(n.ref) !== 1) return;
    if (p.orders.some((o) => o.needs.includes(i)) || n.choices.some((c) => c.uses.length)) return;
    const key = JSON.stringify([n.id.split(".")[1], n.need, n.choices.map((c) => [c.pin, c.cost])]);
    sets.set(key, [...(sets.get(key) ?? []), i]);
  });
  return [...sets.values()].filter((s) => s.length > 1).sort((a, b) => b.length - a.length);
}

const numberIn = (label: string) => Number(/\d+/.exec(label)?.[0] ?? NaN);

const prefixOf = (label: string) => label.replace(/\d.*$/, "");

/** Pins that are no row: by the names that are printed, digital ones before the analogue ones that share their numbers. */
const byName = (p: Problem) => (a: number, b: number) => {
  const [x, y] = [p.pins[a]!, p.pins[b]!];
  const [px, py] = [prefixOf(x.label), prefixOf(y.label)];
  return (
    x.ref.localeCompare(y.ref) || py.localeCompare(px) || (numberIn(x.label) || 0) - (numberIn(y.label) || 0) || a - b
  );
};

/** Neighbouring pins in the direction in which their printed numbers grow. */
function inReadingOrder(p: Problem, row: number[]): number[] {
  const [first, last] = [row[0]!, row.at(-1)!].map((i) => numberIn(p.pins[i]!.label));
  return first! > last! ? [...row].reverse() : row;
}

const neighbours = (p: Problem, a: number, b: number) =>
  Math.abs(a - b) === 1 && p.pins[a]!.ref === p.pins[b]!.ref && p.pins[a]!.header === p.pins[b]!.header;

/** How often a row of pins leaves the line: none for neighbours in order. */
const breaks = (p: Problem, pins: readonly number[]) =>
  pins.slice(1).filter((x, i) => !neighbours(p, pins[i]!, x)).length;

/** Rows of neighbouring pins of one length that a need may stand on. */
function rowsFor(p: Problem, need: ProblemNeed, count: number): number[][] {
  const may = new Set(need.choices.map((c) => c.pin));
  const out: number[][] = [];
  for (let s = 0; s + count <= p.pins.length; s++) {
    const row = Array.from({ length: count }, (_, k) => s + k);
    if (row.every((x) => may.has(x)) && breaks(p, row) === 0) out.push(inReadingOrder(p, row));
  }
  return out;
}

const priceAt = (n: ProblemNeed, pin: number) => Math.min(...n.choices.filter((c) => c.pin === pin).map((c) => c.cost));

/** The problem with some needs held to a pin. */
const heldAt = (p: Problem, pins: ReadonlyMap<number, number>): Problem => ({
  ...p,
  needs: p.needs.map((n, i) => {
    const pin = pins.get(i);
    return pin === undefined ? n : { ...n, choices: n.choices.filter((c) => c.pin === pin) };
  }),
});

function quickly(p: Problem): Solution | null {
  const run = solveSlowly(p, MOST_MS);
  for (;;) {
    const r = run.next();
    if (r.done) return r.value === "stopped" ? null : r.value;
  }
}

/** Natural order of references: SW2 before SW10. */
const byRef = (p: Problem) => (a: number, b: number) =>
  p.needs[a]!.ref.localeCompare(p.needs[b]!.ref, "en", { numeric: true });

/**
 * The same plan at the same price, put in order: parts that are alike stand on neighbouring pins, in the order of their
 * names. Others make room only where that costs nothing. Where no row is free, they at least stand in order.
 */
export function tidied(p: Problem, s: Solution): Solution {
  let now = s;
  const pinOf = (i: number) => p.needs[i]!.choices[now.choice[i]!]!.pin;
  const settled = new Map<number, number>();
  const sets = alikeSets(p);
  const loose = new Set(sets.flat());
  for (const set of sets) {
    const members = [...set].sort(byRef(p));
    const first = p.needs[members[0]!]!;
    const ordered = () => {
      const pins = members.map(pinOf).sort((a, b) => a - b);
      return breaks(p, pins) === 0 ? inReadingOrder(p, pins) : pins.sort(byName(p));
    };
    const mine = ordered();
    const inOrder = (pins: readonly number[]) => {
      const choice = [...now.choice];
      members.forEach((i, k) => (choice[i] = p.needs[i]!.choices.findIndex((c) => c.pin === pins[k] && !c.bus)));
      return choice.includes(-1) ? now : { ...now, choice };
    };
    if (breaks(p, mine) > 0) {
      const cost = members.reduce((sum, i) => sum + priceAt(p.needs[i]!, pinOf(i)), 0);
      const owner = new Map(p.needs.map((_, i) => [pinOf(i), i]));
      const rows = rowsFor(p, first, members.length)
        .map((row) => {
          const guests = row.flatMap((x) => {
            const i = owner.get(x);
            return i === undefined || members.includes(i) ? [] : [i];
          });
          return { row, guests, price: row.reduce((sum, x) => sum + priceAt(first, x), 0) };
        })
        .filter((r) => r.guests.every((i) => loose.has(i) && !settled.has(i)))
        // What the guests pay now is the most that moving them can give back.
        .filter((r) => r.price - cost <= r.guests.reduce((sum, i) => sum + priceAt(p.needs[i]!, pinOf(i)), 0))
        .sort((a, b) => a.guests.length - b.guests.length || a.price - b.price)
        .slice(0, MOST_ROWS);
      for (const { row, guests } of rows) {
        const held = new Map(p.needs.flatMap((_, i) => (guests.includes(i) ? [] : [[i, pinOf(i)] as const])));
        members.forEach((i, k) => held.set(i, row[k]!));
        const q = heldAt(p, held);
        const better = quickly(q);
        if (!better || better.cost > now.cost + 1e-9) continue;
        const choice = better.choice.map((k, i) => p.needs[i]!.choices.indexOf(q.needs[i]!.choices[k]!));
        now = { ...better, choice, proven: s.proven };
        break;
      }
    }
    now = inOrder(ordered());
    for (const i of members) settled.set(i, pinOf(i));
  }
  return now;
}
