import { cheapestMatching, NEVER } from "./matching";
import type { Choice, Problem, ProblemNeed } from "./problem";

/** A choice index for every need, with its price in the units of the weights. */
export interface Solution {
  choice: number[];
  cost: number;
  sideCost: number;
}

/** Ties are broken by printed order: real costs are scaled up and the pin's place in the header added. */
const SCALE = 1 << 14;

interface Combo {
  bus: string;
  picks: [need: number, choice: number][];
  price: number;
}

interface Search {
  p: Problem;
  sides: string[];
  /** Per need and choice: scaled price. */
  price: number[][];
  singles: number[];
  groupNeeds: Map<number, number[]>;
  combos: Map<number, Combo[]>;
  best: number;
  bestChoice: number[] | null;
}

const scaled = (c: Choice) => c.cost * SCALE + c.pin;

/** All ways in which a bus group can sit on one bus instance, cheapest first. */
function combosOf(p: Problem, needs: number[]): Combo[] {
  const buses = [...new Set(needs.flatMap((n) => p.needs[n]!.choices.map((c) => c.bus)))];
  const out: Combo[] = [];
  for (const bus of buses) {
    let partial: Combo[] = [{ bus: bus ?? "", picks: [], price: 0 }];
    for (const n of needs)
      partial = partial.flatMap((combo) =>
        p.needs[n]!.choices.flatMap((c, i): Combo[] => {
          // A chip select is an ordinary pin that belongs to the group but not to a bus instance.
          if (c.bus !== bus && !(c.bus === null && p.needs[n]!.share === null)) return [];
          if (combo.picks.some(([m, j]) => p.needs[m]!.choices[j]!.pin === c.pin)) return [];
          return [{ bus: combo.bus, picks: [...combo.picks, [n, i]], price: combo.price + scaled(c) }];
        }),
      );
    out.push(...partial);
  }
  return out.sort((a, b) => a.price - b.price);
}

const popcount = (x: number) => {
  let n = 0;
  for (; x; x &= x - 1) n++;
  return n;
};

/** Parts with several needs pay for every header side beyond the first. */
function sideMask(s: Search, choice: readonly number[], needs: readonly number[]): number {
  let mask = 0;
  for (const n of needs) {
    const c = choice[n]!;
    if (c >= 0) mask |= 1 << s.sides.indexOf(s.p.pins[s.p.needs[n]!.choices[c]!.pin]!.header);
  }
  return mask;
}

/** Single pins, with bus pins already taken: matching as the bound, branching on the sides that a part may use. */
function placeSingles(
  s: Search,
  choice: number[],
  taken: Set<number>,
  base: number,
  partsNeeds: Map<string, number[]>,
) {
  const { p } = s;
  const full = (1 << s.sides.length) - 1;
  const busMask = new Map<string, number>();
  for (const [ref, needs] of partsNeeds)
    busMask.set(
      ref,
      sideMask(
        s,
        choice,
        needs.filter((n) => choice[n]! >= 0),
      ),
    );
  const paid = (allowed: Map<string, number>) => {
    let sum = 0;
    for (const mask of allowed.values()) sum += Math.max(0, popcount(mask) - 1) * p.sideCost * SCALE;
    return sum;
  };
  // A part whose bus wires alone already spread over two sides pays for that whatever comes after.
  const fixedSides = new Map([...busMask].filter(([, mask]) => popcount(mask) > 1));
  const columns = p.pins.length;
  const descend = (allowed: Map<string, number>) => {
    const cost = s.singles.map((n) => {
      const need = p.needs[n]!;
      const row = new Array<number>(columns).fill(NEVER);
      const mask = allowed.get(need.ref) ?? full;
      need.choices.forEach((c, i) => {
        if (taken.has(c.pin) || !(mask & (1 << s.sides.indexOf(p.pins[c.pin]!.header)))) return;
        row[c.pin] = Math.min(row[c.pin]!, s.price[n]![i]!);
      });
      return row;
    });
    const match = cheapestMatching(cost, columns);
    if (!match) return;
    const bound = base + match.total + paid(allowed);
    if (bound >= s.best) return;
    const full_ = [...choice];
    s.singles.forEach((n, k) => (full_[n] = p.needs[n]!.choices.findIndex((c) => c.pin === match.column[k])));
    let over: string | null = null;
    let total = base + match.total;
    for (const [ref, needs] of partsNeeds) {
      const mask = sideMask(s, full_, needs);
      total += Math.max(0, popcount(mask) - 1) * p.sideCost * SCALE;
      const granted = allowed.get(ref);
      if (over === null && popcount(mask) > Math.max(1, granted === undefined ? 1 : popcount(granted))) over = ref;
    }
    if (total < s.best) {
      s.best = total;
      s.bestChoice = full_;
    }
    if (over === null) return;
    const base_ = busMask.get(over) ?? 0;
    const masks = Array.from({ length: full }, (_, i) => i + 1)
      .filter((m) => (m & base_) === base_)
      .sort((a, b) => popcount(a) - popcount(b) || a - b);
    for (const m of masks) descend(new Map(allowed).set(over, m));
  };
  descend(fixedSides);
}

function placeGroups(s: Search, order: number[], k: number, st: State, partsNeeds: Map<string, number[]>) {
  if (st.price + st.rest[k]! >= s.best) return;
  if (k === order.length) return placeSingles(s, st.choice, new Set(st.owner.keys()), st.price, partsNeeds);
  const g = order[k]!;
  for (const combo of s.combos.get(g)!) {
    if (st.price + combo.price + st.rest[k + 1]! >= s.best) break;
    if (
      s.p.clashes.some(
        ([a, b]) => (a === g && st.busOf.get(b) === combo.bus) || (b === g && st.busOf.get(a) === combo.bus),
      )
    )
      continue;
    if (!fits(s.p, combo, st)) continue;
    const added: number[] = [];
    const lines: string[] = [];
    for (const [n, i] of combo.picks) {
      const need = s.p.needs[n]!;
      const pin = need.choices[i]!.pin;
      const line = need.share ? `${combo.bus}|${need.share}` : `${need.id}`;
      if (!st.owner.has(pin)) {
        st.owner.set(pin, line);
        added.push(pin);
      }
      if (need.share && !st.line.has(line)) {
        st.line.set(line, pin);
        lines.push(line);
      }
      st.choice[n] = i;
    }
    st.busOf.set(g, combo.bus);
    placeGroups(s, order, k + 1, { ...st, price: st.price + combo.price }, partsNeeds);
    st.busOf.delete(g);
    for (const pin of added) st.owner.delete(pin);
    for (const line of lines) st.line.delete(line);
    for (const [n] of combo.picks) st.choice[n] = -1;
  }
}

interface State {
  choice: number[];
  /** Pin to the bus line (or need) that owns it, bus line to its pin, group to its bus. */
  owner: Map<number, string>;
  line: Map<string, number>;
  busOf: Map<number, string>;
  price: number;
  /** Cheapest possible price of the groups from k on plus all single pins. */
  rest: number[];
}

function fits(p: Problem, combo: Combo, st: State): boolean {
  return combo.picks.every(([n, i]) => {
    const need: ProblemNeed = p.needs[n]!;
    const pin = need.choices[i]!.pin;
    const owner = st.owner.get(pin);
    if (!need.share) return owner === undefined;
    const line = `${combo.bus}|${need.share}`;
    const at = st.line.get(line);
    return (owner === undefined || owner === line) && (at === undefined || at === pin);
  });
}

/** Whether the groups can be spread over bus instances at all, before any pin is tried. */
function busesSuffice(p: Problem, combos: Map<number, Combo[]>, order: number[]): boolean {
  const buses = new Map(order.map((g) => [g, [...new Set(combos.get(g)!.map((c) => c.bus))]]));
  const of = new Map<number, string>();
  const go = (k: number): boolean => {
    if (k === order.length) return true;
    const g = order[k]!;
    return buses.get(g)!.some((bus) => {
      if (p.clashes.some(([a, b]) => (a === g && of.get(b) === bus) || (b === g && of.get(a) === bus))) return false;
      of.set(g, bus);
      const ok = go(k + 1);
      of.delete(g);
      return ok;
    });
  };
  return go(0);
}

/**
 * The cheapest assignment, proven: branch and bound over bus groups, then a matching with side branching for single
 * pins. Null when no assignment exists. Deterministic; ties go to the pins printed first.
 */
export function solve(p: Problem): Solution | null {
  if (p.needs.some((n) => !n.choices.length)) return null;
  const groupNeeds = new Map<number, number[]>();
  const singles: number[] = [];
  p.needs.forEach((n, i) => {
    if (n.group === null) singles.push(i);
    else groupNeeds.set(n.group, [...(groupNeeds.get(n.group) ?? []), i]);
  });
  const partsNeeds = new Map<string, number[]>();
  p.needs.forEach((n, i) => partsNeeds.set(n.ref, [...(partsNeeds.get(n.ref) ?? []), i]));
  for (const [ref, needs] of partsNeeds) if (needs.length < 2) partsNeeds.delete(ref);
  const s: Search = {
    p,
    sides: [...new Set(p.pins.map((x) => x.header))],
    price: p.needs.map((n) => n.choices.map(scaled)),
    singles,
    groupNeeds,
    combos: new Map([...groupNeeds].map(([g, needs]) => [g, combosOf(p, needs)])),
    best: Infinity,
    bestChoice: null,
  };
  const order = [...groupNeeds.keys()].sort((a, b) => s.combos.get(a)!.length - s.combos.get(b)!.length || a - b);
  if (!busesSuffice(p, s.combos, order)) return null;
  const loose = cheapestMatching(
    singles.map((n) => {
      const row = new Array<number>(p.pins.length).fill(NEVER);
      p.needs[n]!.choices.forEach((c, i) => (row[c.pin] = Math.min(row[c.pin]!, s.price[n]![i]!)));
      return row;
    }),
    p.pins.length,
  );
  if (!loose) return null;
  const rest = [loose.total];
  for (let k = order.length - 1; k >= 0; k--) rest.unshift((s.combos.get(order[k]!)![0]?.price ?? Infinity) + rest[0]!);
  placeGroups(
    s,
    order,
    0,
    { choice: p.needs.map(() => -1), owner: new Map(), line: new Map(), busOf: new Map(), price: 0, rest },
    partsNeeds,
  );
  if (!s.bestChoice) return null;
  const choice = s.bestChoice;
  let sideCost = 0;
  for (const needs of partsNeeds.values())
    sideCost += Math.max(0, popcount(sideMask(s, choice, needs)) - 1) * p.sideCost;
  const cost = choice.reduce((sum, c, n) => sum + p.needs[n]!.choices[c]!.cost, 0) + sideCost;
  return { choice, cost, sideCost };
}

/** The same problem with only some of its needs. */
export function subProblem(p: Problem, keep: ReadonlySet<string>): Problem {
  return { ...p, needs: p.needs.filter((n) => keep.has(n.id)) };
}

/** A minimal clashing set: without any one of these needs the rest of them fits. Empty when the problem is solvable. */
export function clashingCore(p: Problem): ProblemNeed[] {
  const keep = new Set(p.needs.map((n) => n.id));
  if (solve(p)) return [];
  for (const n of [...p.needs].reverse()) {
    keep.delete(n.id);
    if (solve(subProblem(p, keep))) keep.add(n.id);
  }
  return p.needs.filter((n) => keep.has(n.id));
}
