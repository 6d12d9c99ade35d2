import { Occupancy } from "./occupancy";
import type { BoardProblem, Item } from "./problem";
import { LEG_LETTERS, oppositeLetter, straddleLetters, usbReachable, type Spot, type Spots } from "./spots";
import { LETTERS, SIZES, type Half, type SizeId } from "./sizes";

export interface Placed {
  sizes: SizeId[];
  spots: Spots;
  /** Parts for which there is no room. */
  unplaced: string[];
  /** Wire length and number of wires, in pitches; what the search made small. */
  cost: number;
  /** Candidates tried. */
  tried: number;
}

const HALVES: Half[] = ["left", "right"];
/** Sets of breadboards in the order in which they are tried: the smallest that takes everything. */
export const SETS: SizeId[][] = [["170"], ["400"], ["830"], ["830", "400"], ["830", "830"], ["830", "830", "830"]];
/** How many candidates the improving search may try. */
const EFFORT = 90_000;

/** A pitch between a capacitor and its pin, against millimetres of wire: there it must be. */
const STRAIN_MM = 10;

/** Columns that a lying part tries, the middle ones first. */
const BRIDGE_LETTERS: Record<Half, string> = { left: "cbdae", right: "higjf" };

const ORDER = { straddle: 0, strip: 1, legs: 2, bridge: 3 } as const;
const sizeOf = (i: Item) => (i.print.kind === "straddle" ? i.print.left.length * i.print.apart : i.print.pins.length);
const inOrder = (items: readonly Item[]) =>
  [...items].sort(
    (a, b) =>
      Number(!a.inst.part.board) - Number(!b.inst.part.board) ||
      ORDER[a.print.kind] - ORDER[b.print.kind] ||
      sizeOf(b) - sizeOf(a) ||
      (a.ref < b.ref ? -1 : 1),
  );

/** Two-legged parts away from everything: both legs in rows of their own. */
function* looseSpots(o: Occupancy, item: Item): Generator<Spot> {
  if (item.print.kind !== "bridge") return;
  for (const [board, size] of o.sizes.entries())
    for (const half of HALVES)
      for (let row = 1; row + item.print.least <= SIZES[size].rows; row++)
        for (const letter of BRIDGE_LETTERS[half])
          yield { board, half, row, letter, turn: false, to: { half, row: row + item.print.least, letter } };
}

/** Two-legged parts with a leg in a row of one of their nets. */
function* bridgeSpots(o: Occupancy, p: BoardProblem, item: Item): Generator<Spot> {
  if (item.print.kind !== "bridge") return;
  const { pins, least, most } = item.print;
  const nets = pins.map((pin) => p.netOf.get(`${item.ref}.${pin}`) ?? "");
  const known = nets.map((n) => o.rowsWith(n));
  const others = (at: { board: number; half: Half; row: number }) => {
    const out: { half: Half; row: number }[] = [];
    for (const half of HALVES)
      for (let d = -most; d <= most; d++) {
        const far = half === at.half ? Math.abs(d) : Math.hypot(3, d);
        if (far >= (half === at.half ? least : 0) && far <= most) out.push({ half, row: at.row + d });
      }
    return out;
  };
  for (const [k, list] of known.entries())
    for (const at of list)
      for (const x of others(at)) {
        const [first, second] = k === 0 ? [at, x] : [x, at];
        const spot = { board: at.board, half: first.half, row: first.row, turn: false };
        if (first.half !== second.half) {
          yield { ...spot, to: { half: second.half, row: second.row } };
          continue;
        }
        if (second.row < 1 || second.row > SIZES[o.sizes[at.board]!].rows || first.row < 1) continue;
        if (first.row > SIZES[o.sizes[at.board]!].rows) continue;
        // Both legs in one column, so that the part lies along the row numbers.
        const [one, two] = [first, second].map((r) => o.freeAt(at.board, r.half, r.row)) as [string, string];
        for (const letter of BRIDGE_LETTERS[first.half])
          if (one.includes(letter) && two.includes(letter))
            yield { ...spot, letter, to: { half: second.half, row: second.row, letter } };
      }
}

/** Every spot that a part could take, whether it is free or not. */
function* spotsFor(o: Occupancy, p: BoardProblem, item: Item): Generator<Spot> {
  const { print } = item;
  if (print.kind === "bridge") {
    yield* bridgeSpots(o, p, item);
    return;
  }
  for (const [board, size] of o.sizes.entries()) {
    const { rows } = SIZES[size];
    if (print.kind === "straddle") {
      const letters = straddleLetters(print.apart).filter(
        (l) =>
          print.apart < 6 || LETTERS.left.indexOf(l) > 0 || LETTERS.right.indexOf(oppositeLetter(l, print.apart)!) < 4,
      );
      for (let row = 1; row <= rows; row++)
        // A board stands as its own drawing shows it.
        for (const turn of item.inst.part.board ? [false] : [false, true])
          for (const letter of letters.slice(0, 2)) {
            const spot = { board, half: "left" as const, row, letter, turn };
            if (usbReachable(item, spot, o.sizes)) yield spot;
          }
    } else
      for (const half of HALVES)
        for (let row = 1; row <= rows; row++) {
          if (print.kind === "strip") yield { board, half, row, turn: false };
          else
            for (const letter of LEG_LETTERS[half])
              for (const turn of [false, true]) yield { board, half, row, letter, turn };
        }
  }
}

interface Count {
  tried: number;
}

/** What a placement is worth with its wires laid: the less, the better. */
export type Price = (sizes: readonly SizeId[], spots: Spots) => number;

function spotsOf(o: Occupancy, p: BoardProblem): Spots {
  const spots: Spots = {};
  for (const i of p.items) {
    const spot = o.spotOf(i.ref);
    if (spot) spots[i.ref] = spot;
  }
  return spots;
}

/** Rows beyond the parts that a part has wires to, in which it is still tried when it is set again. */
const AROUND = 8;

/** Whether a spot is near a row that the part has a wire to; everything is, while there is no such row. */
function nearby(o: Occupancy, p: BoardProblem, item: Item): (spot: Spot) => boolean {
  const mine = p.nets.filter((n) => !n.rail && n.on.some((e) => e.startsWith(`${item.ref}.`)));
  const rows = mine.flatMap((n) => o.rowsWith(n.id));
  if (!rows.length) return () => true;
  const tall = item.print.kind === "straddle" ? item.print.left.length : item.print.pins.length;
  return (spot) =>
    rows.some((r) => r.board === spot.board && spot.row >= r.row - tall - AROUND && spot.row <= r.row + AROUND);
}

/** Puts a part where it costs least; false when it fits nowhere. `close`: near what it is wired to, where there is room. */
function insert(o: Occupancy, p: BoardProblem, item: Item, n: Count, close = false): boolean {
  let best: Spot | undefined;
  let least = Infinity;
  const near = close ? nearby(o, p, item) : () => true;
  for (const spot of [...spotsFor(o, p, item)]) {
    if (!near(spot)) continue;
    n.tried++;
    if (!o.fits(item, spot)) continue;
    o.place(item, spot);
    if (o.cost < least - 1e-9) [best, least] = [spot, o.cost];
    o.take(item.ref);
  }
  if (!best && close) return insert(o, p, item, n);
  if (!best)
    for (const spot of looseSpots(o, item)) {
      n.tried++;
      if (!o.fits(item, spot)) continue;
      o.place(item, spot);
      if (o.cost < least - 1e-9) [best, least] = [spot, o.cost];
      o.take(item.ref);
    }
  if (best) o.place(item, best);
  return best !== undefined;
}

/** Small numbers that look random and are the same every time (Numerical Recipes' linear congruential generator). */
function dice(seed: number) {
  let s = seed >>> 0;
  return (n: number) => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    return Math.floor((s / 2 ** 32) * n);
  };
}

function neighbours(p: BoardProblem, items: readonly Item[], of: Item): Item[] {
  const mine = new Set(p.nets.filter((n) => n.on.some((e) => e.startsWith(`${of.ref}.`)) && !n.rail).map((n) => n.id));
  const touches = (i: Item) => p.nets.some((n) => mine.has(n.id) && n.on.some((e) => e.startsWith(`${i.ref}.`)));
  return items.filter((i) => i !== of && touches(i));
}

/**
 * Makes the wires shorter: one part after the other is moved to its best place until none can be moved to a better one;
 * then small groups of parts that share nets are taken up and set again together, and what is better is kept.
 */
function improve(
  o: Occupancy,
  p: BoardProblem,
  items: readonly Item[],
  fixed: ReadonlySet<string>,
  n: Count,
  price: Price | undefined,
  until: number,
): void {
  const free = items.filter((i) => !fixed.has(i.ref) && o.spotOf(i.ref));
  const sweep = () => {
    for (let changed = true, k = 0; changed && k < 8 && n.tried < EFFORT; k++) {
      changed = false;
      for (const item of free) {
        const before = o.cost;
        const was = o.take(item.ref)!;
        if (!insert(o, p, item, n) || o.cost > before - 1e-9) {
          if (o.spotOf(item.ref)) o.take(item.ref);
          o.place(item, was);
        } else changed = true;
      }
    }
  };
  sweep();
  if (free.length < 2) return;
  const roll = dice(20);
  // With every wire laid, where somebody can tell; else by what the search knows.
  const worth = () => (price ? price(o.sizes, spotsOf(o, p)) + o.strain() * STRAIN_MM : o.cost);
  let now = worth();
  while (n.tried < EFFORT && performance.now() < until) {
    const centre = free[roll(free.length)]!;
    const near = neighbours(p, free, centre);
    const group = new Set([centre]);
    for (let k = 0; k < 3 && near.length; k++) group.add(near[roll(near.length)]!);
    group.add(free[roll(free.length)]!);
    const was = [...group].map((i) => [i, o.take(i.ref)!] as const);
    const order = roll(2) ? inOrder([...group]) : [...group].sort(() => roll(3) - 1);
    const ok = order.every((i) => insert(o, p, i, n, true));
    const then = ok ? worth() : Infinity;
    if (then <= now + 1e-9) {
      now = then;
      continue;
    }
    for (const i of group) o.take(i.ref);
    for (const [i, spot] of was) o.place(i, spot);
  }
  if (!price) sweep();
}

interface Start {
  o: Occupancy;
  n: Count;
  fixed: Set<string>;
  unplaced: string[];
}

/** Given parts where they are, the others one by one where they cost least. */
function start(p: BoardProblem, sizes: readonly SizeId[], given: Spots): Start {
  const o = new Occupancy(p, sizes);
  const n: Count = { tried: 0 };
  const items = inOrder(p.items);
  const fixed = new Set<string>();
  for (const i of items) {
    const spot = given[i.ref];
    if (!spot || !o.fits(i, spot)) continue;
    o.place(i, spot);
    fixed.add(i.ref);
  }
  const unplaced = items.filter((i) => !fixed.has(i.ref) && !insert(o, p, i, n)).map((i) => i.ref);
  return { o, n, fixed, unplaced };
}

/**
 * Places every part that fits on breadboards: on the given ones, else on the fewest and smallest that take them all. Rows
 * belong to one net, no hole in use is covered, the USB end stays reachable, and wires are as few and as short as the
 * search finds. Given spots stay. Deterministic, unless it is stopped at `until` (of `performance.now()`).
 */
export function placeAll(
  p: BoardProblem,
  sizes?: SizeId[],
  given: Spots = {},
  price?: Price,
  until = Infinity,
): Placed {
  let chosen: { sizes: SizeId[]; from: Start } | undefined;
  for (const set of sizes?.length ? [sizes] : SETS) {
    const from = start(p, set, given);
    if (!chosen || from.unplaced.length < chosen.from.unplaced.length) chosen = { sizes: set, from };
    if (!from.unplaced.length) break;
  }
  const { o, n, fixed, unplaced } = chosen!.from;
  improve(o, p, inOrder(p.items), fixed, n, price, until);
  return { sizes: chosen!.sizes, spots: spotsOf(o, p), unplaced, cost: o.cost, tried: n.tried };
}

/** The best free place for one part, the others staying where they are; undefined when there is none. */
export function placeOne(p: BoardProblem, sizes: readonly SizeId[], spots: Spots, ref: string): Spot | undefined {
  const o = new Occupancy(p, sizes);
  for (const i of p.items) {
    const spot = spots[i.ref];
    if (i.ref !== ref && spot && o.fits(i, spot)) o.place(i, spot);
  }
  const item = p.items.find((i) => i.ref === ref);
  return item && insert(o, p, item, { tried: 0 }) ? o.spotOf(ref) : undefined;
}
