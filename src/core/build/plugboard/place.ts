import type { Rect } from "../breadboard/spots";
import type { Header } from "./headers";
import type { PlugItem, PlugProblem } from "./problem";
import type { Shape } from "./shapes";

/** Holes of the board, all four included, counted from the header's upper left pin. */
export interface Outline {
  x1: number;
  x2: number;
  y1: number;
  y2: number;
}
export interface Put {
  shape: Shape;
  x: number;
  y: number;
}
export interface Placement {
  outline: Outline;
  put: Map<string, Put>;
  /** Length of all wires, in holes. */
  cost: number;
}

/** What a hole between a capacitor and its pin weighs against a hole of wire, and every hole beyond a short way. */
const AWAY = 3;
const SHORT = 4;
const FAR_AWAY = 8;
/** Moves for each part. */
const EFFORT = 1800;
/** As much of it for a first look at an outline. */
const LOOK = 0.2;
/** So many outlines are looked at, and up to so much more area than the smallest: shorter wires may be worth a larger board. */
const OUTLINES = 6;
const LARGER = 1.6;
/** A hole of the board against a hole of wire. */
const AREA = 0.12;
/** Free area beside what parts need: for hands, and for the wires of an iron's tip. */
const ROOM = 1.4;
/** The widest board that is looked at, holes beyond the header on each side. */
const WIDEST = 40;
/** Rows below a header beyond which nothing stands in the way. */
const DEEPEST = 24;

const meet = (a: Rect, b: Rect) => a.x1 < b.x2 - 1e-6 && b.x1 < a.x2 - 1e-6 && a.y1 < b.y2 - 1e-6 && b.y1 < a.y2 - 1e-6;
const shift = (r: Rect, x: number, y: number): Rect => ({ x1: r.x1 + x, x2: r.x2 + x, y1: r.y1 + y, y2: r.y2 + y });
const areaOf = (r: Rect) => (r.x2 - r.x1) * (r.y2 - r.y1);

/** Small numbers that look random and are the same every time (Numerical Recipes' linear congruential generator). */
function dice(seed: number) {
  let s = seed >>> 0;
  return () => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    return s / 2 ** 32;
  };
}

type At = { x: number; y: number };
const apart = (a: At, b: At) => Math.abs(a.x - b.x) + Math.abs(a.y - b.y);

/** Length of the shortest tree over points, in holes along and across (Prim). */
function treeLength(points: readonly At[]): number {
  if (points.length < 2) return 0;
  const far = points.map((p) => apart(p, points[0]!));
  const done = points.map((_, i) => i === 0);
  let sum = 0;
  for (let n = 1; n < points.length; n++) {
    let next = -1;
    for (let i = 0; i < points.length; i++) if (!done[i] && (next < 0 || far[i]! < far[next]!)) next = i;
    done[next] = true;
    sum += far[next]!;
    for (let i = 0; i < points.length; i++) if (!done[i]) far[i] = Math.min(far[i]!, apart(points[i]!, points[next]!));
  }
  return sum;
}

/** The board with what stands on it so far. */
class Board {
  readonly put = new Map<string, Put & { body: Rect }>();
  private readonly where = new Map<string, At>();
  private readonly groupsOf = new Map<string, number[]>();

  constructor(
    private readonly p: PlugProblem,
    readonly outline: Outline,
  ) {
    for (const h of p.header.pins) if (h.pin) this.where.set(`${p.host.ref}.${h.pin}`, h);
    for (const item of p.items) {
      const ends = new Set(item.shapes[0]!.holes.flatMap((h) => (h.pin ? [item.endOf(h.pin)] : [])));
      this.groupsOf.set(
        item.ref,
        p.groups.flatMap((g, i) => (g.ends.some((e) => ends.has(e)) ? [i] : [])),
      );
    }
  }

  fits(item: PlugItem, shape: Shape, x: number, y: number): Rect | null {
    const o = this.outline;
    const body = shift(shape.body, x, y);
    if (body.x1 < o.x1 - 0.5 || body.x2 > o.x2 + 0.5 || body.y1 < o.y1 - 0.5 || body.y2 > o.y2 + 0.5) return null;
    if (shape.edge) {
      const on = (test: (h: At) => boolean) => shape.holes.every((h) => test({ x: h.x + x, y: h.y + y }));
      if (!on((h) => h.x === o.x1) && !on((h) => h.x === o.x2) && !on((h) => h.y === o.y2)) return null;
    }
    if (this.p.header.covers.some((r) => meet(r, body))) return null;
    for (const [ref, other] of this.put) if (ref !== item.ref && meet(other.body, body)) return null;
    return body;
  }
  set(item: PlugItem, shape: Shape, x: number, y: number, body: Rect) {
    this.put.set(item.ref, { shape, x, y, body });
    for (const h of shape.holes) if (h.pin) this.where.set(item.endOf(h.pin), { x: h.x + x, y: h.y + y });
  }
  take(item: PlugItem) {
    const was = this.put.get(item.ref);
    this.put.delete(item.ref);
    if (was) for (const h of was.shape.holes) if (h.pin) this.where.delete(item.endOf(h.pin));
    return was;
  }
  private lengthOf(g: number): number {
    const points: At[] = [];
    for (const e of this.p.groups[g]!.ends) {
      const at = this.where.get(e);
      if (at) points.push(at);
    }
    return treeLength(points);
  }
  private strainOf(item: PlugItem): number {
    if (!item.near) return 0;
    const [a, b] = [this.where.get(item.endOf(item.near.leg)), this.where.get(`${item.near.ref}.${item.near.pin}`)];
    if (!a || !b) return 0;
    const d = apart(a, b);
    return d * AWAY + Math.max(0, d - SHORT) * FAR_AWAY;
  }
  /** How far the farthest of these capacitors stands from its pin, in holes along and across. */
  farthest(crew: readonly PlugItem[]): number {
    return Math.max(
      0,
      ...crew.map((i) => {
        const [a, b] = [this.where.get(i.endOf(i.near!.leg)), this.where.get(`${i.near!.ref}.${i.near!.pin}`)];
        return a && b ? apart(a, b) : 0;
      }),
    );
  }
  /** What depends on where an item stands: its groups, its own capacitors, and its pin when it is one. */
  costAround(items: readonly PlugItem[]): number {
    const groups = new Set(items.flatMap((i) => this.groupsOf.get(i.ref)!));
    const refs = new Set(items.map((i) => i.ref));
    let sum = 0;
    for (const g of groups) sum += this.lengthOf(g);
    for (const i of this.p.items) if (i.near && (refs.has(i.ref) || refs.has(i.near.ref))) sum += this.strainOf(i);
    return sum;
  }
  get cost(): number {
    return this.costAround(this.p.items);
  }
}

type Where = { shape: Shape; x: number; y: number; body: Rect; cost: number };

/** Every place where an item fits, with what it adds there. */
function places(b: Board, item: PlugItem): Where[] {
  const o = b.outline;
  const out: Where[] = [];
  for (const shape of item.shapes)
    for (let y = o.y1; y <= o.y2; y++)
      for (let x = o.x1; x <= o.x2; x++) {
        const body = b.fits(item, shape, x, y);
        if (!body) continue;
        b.set(item, shape, x, y, body);
        // Near the upper end among equals.
        out.push({ shape, x, y, body, cost: b.costAround([item]) + 0.001 * (Math.abs(x) + y) });
        b.take(item);
      }
  return out;
}

/** Puts an item where it adds least; false when it fits nowhere. */
function insert(b: Board, item: PlugItem): boolean {
  const list = places(b, item);
  if (!list.length) return false;
  const best = list.reduce((p, q) => (q.cost < p.cost ? q : p));
  b.set(item, best.shape, best.x, best.y, best.body);
  return true;
}

/** Places of a part that are tried until its capacitors find theirs close by. */
const WITH_CREW = 60;

/** Puts a part with its capacitors; false when they fit nowhere. */
function insertCrew(b: Board, item: PlugItem, crew: readonly PlugItem[]): boolean {
  if (!crew.length) return insert(b, item);
  const list = places(b, item).sort((p, q) => p.cost - q.cost);
  // Spread over all places, so that not all are the same corner.
  const step = Math.max(1, Math.floor(list.length / WITH_CREW));
  const tries = list.filter((_, i) => i < 8 || i % step === 0);
  let best: { at: Where; cost: number; far: number } | undefined;
  for (const at of tries) {
    b.set(item, at.shape, at.x, at.y, at.body);
    if (crew.every((x) => insert(b, x))) {
      const far = b.farthest(crew);
      const cost = b.costAround([item, ...crew]);
      if (!best || cost < best.cost) best = { at, cost, far };
    }
    for (const x of [item, ...crew]) b.take(x);
    if (best && best.far <= SHORT) break;
  }
  if (!best) return false;
  b.set(item, best.at.shape, best.at.x, best.at.y, best.at.body);
  return crew.every((x) => insert(b, x));
}

/** Parts whose capacitors ended up far away are set again with them, where that is better. */
function gather(b: Board, items: readonly PlugItem[]): void {
  for (const item of items) {
    const crew = items.filter((x) => x.near?.ref === item.ref);
    if (!crew.length || b.farthest(crew) <= 2 * SHORT) continue;
    const all = [item, ...crew];
    const before = b.cost;
    const was = all.map((x) => b.take(x)!);
    if (insertCrew(b, item, crew) && b.cost < before) continue;
    for (const x of all) b.take(x);
    all.forEach((x, n) => b.set(x, was[n]!.shape, was[n]!.x, was[n]!.y, was[n]!.body));
  }
}

/** Moves and exchanges parts by chance, ever more choosily (simulated annealing), and keeps the best. */
function improve(b: Board, items: readonly PlugItem[], effort: number): void {
  if (!items.length) return;
  const roll = dice(14);
  const int = (n: number) => Math.floor(roll() * n);
  // A part may take its capacitors along.
  const crews = new Map(items.map((i) => [i.ref, items.filter((x) => x.near?.ref === i.ref)]));
  const moves = Math.round(effort * items.length);
  const o = b.outline;
  let now = b.cost;
  let least = now;
  let best = new Map(b.put);
  for (let k = 0; k < moves; k++) {
    const heat = 6 * (0.15 / 6) ** (k / moves);
    const reach = Math.max(1, Math.round((o.x2 - o.x1) * 0.5 * (1 - k / moves)));
    const a = items[int(items.length)]!;
    const way = roll();
    const other = way < 0.2 ? items[int(items.length)]! : a;
    const crew = way > 0.75 ? (crews.get(a.ref) ?? []) : [];
    const moved = other !== a ? [a, other] : [a, ...crew];
    const before = b.costAround(moved);
    const was = moved.map((i) => b.take(i)!);
    const [dx, dy] = [int(2 * reach + 1) - reach, int(2 * reach + 1) - reach];
    const target = moved.map((i, n) => {
      const at = was[n]!;
      if (other !== a) {
        const to = was[1 - n]!;
        return { shape: i.shapes[int(i.shapes.length)]!, x: to.x + int(3) - 1, y: to.y + int(3) - 1 };
      }
      const shape = crew.length || roll() < 0.5 ? at.shape : i.shapes[int(i.shapes.length)]!;
      return { shape, x: at.x + dx, y: at.y + dy };
    });
    let good = true;
    for (const [n, i] of moved.entries()) {
      const t = target[n]!;
      const body = good ? b.fits(i, t.shape, t.x, t.y) : null;
      if (body) b.set(i, t.shape, t.x, t.y, body);
      else good = false;
    }
    const gain = good ? b.costAround(moved) - before : Infinity;
    if (gain <= 0 || roll() < Math.exp(-gain / heat)) {
      now += gain;
      if (now < least - 1e-9) [least, best] = [now, new Map(b.put)];
    } else {
      for (const i of moved) b.take(i);
      for (const [n, i] of moved.entries()) b.set(i, was[n]!.shape, was[n]!.x, was[n]!.y, was[n]!.body);
    }
  }
  for (const i of items) b.take(i);
  for (const i of items) {
    const at = best.get(i.ref)!;
    b.set(i, at.shape, at.x, at.y, at.body);
  }
}

/** Outlines from small to large: beside the header on both sides, and below it where nothing of the host is in the way. */
function outlines(h: Header, free: "usual" | "beyond"): Outline[] {
  const [w, high] = [Math.max(...h.pins.map((p) => p.x)), Math.max(...h.pins.map((p) => p.y))];
  const out: Outline[] = [];
  const open = h.seating === "socket" || h.seating === "pins";
  // Beyond the end away from the plug, for what is longer than the header; not over sockets that stand there.
  const beyond = free === "beyond" && !(h.seating === "above" && h.missing.some((m) => m.end));
  const depths = open || beyond ? DEEPEST : 0;
  const up = !open && h.plugAt === "bottom";
  // No rim over sockets at the far end: wires go into them.
  const rim = h.seating === "above" && h.missing.some((m) => m.end) ? 0 : 1;
  const side = h.seating === "below" ? Math.ceil(Math.max(...h.covers.map((r) => r.x2)) - w) : 1;
  for (let e = 0; e <= WIDEST; e += 2)
    for (let d = 0; d <= depths; d += 4)
      out.push({ x1: -side - e, x2: w + side + e, y1: -1 - (up ? d : 0), y2: high + rim + (up ? 0 : d) });
  return out.sort((a, b) => areaOf(a) - areaOf(b));
}

/** All items one after the other, parts together with their capacitors; false when one finds no room. */
function inserted(b: Board, items: readonly PlugItem[]): boolean {
  const refs = new Set(items.map((i) => i.ref));
  return items.every((i) =>
    i.near && refs.has(i.near.ref)
      ? true
      : insertCrew(
          b,
          i,
          items.filter((x) => x.near?.ref === i.ref),
        ),
  );
}

const roomOf = (o: Outline): Rect => ({ x1: o.x1 - 0.5, x2: o.x2 + 0.5, y1: o.y1 - 0.5, y2: o.y2 + 0.5 });

/** What is left of an outline beside the host and its rows. */
function freeArea(o: Outline, h: Header): number {
  const whole = roomOf(o);
  const covered = h.covers.map(
    (r) =>
      Math.max(0, Math.min(r.x2, whole.x2) - Math.max(r.x1, whole.x1)) *
      Math.max(0, Math.min(r.y2, whole.y2) - Math.max(r.y1, whole.y1)),
  );
  return areaOf(whole) - covered.reduce((a, b) => a + b, 0);
}

/** Large ones first, each with the capacitors that belong right beside it; wires that leave come last. */
function inOrder(all: readonly PlugItem[], size: (i: PlugItem) => number): PlugItem[] {
  const others = all
    .filter((i) => !i.near)
    .sort((a, b) => Number(a.leads) - Number(b.leads) || size(b) - size(a) || (a.ref < b.ref ? -1 : 1));
  const known = new Set(others.map((i) => i.ref));
  const helpersOf = (ref: string) => all.filter((i) => i.near?.ref === ref);
  return [...all.filter((i) => i.near && !known.has(i.near.ref)), ...others.flatMap((i) => [i, ...helpersOf(i.ref)])];
}

/** A placement on one of the smaller outlines that takes everything, with short wires; null when none does. */
export function placePlug(p: PlugProblem): Placement | null {
  const size = (i: PlugItem) => areaOf(i.shapes[0]!.body);
  const needed = p.items.reduce((s, i) => s + size(i), 0);
  const items = inOrder(p.items, size);
  const looked: { board: Board; worth: number }[] = [];
  let smallest = Infinity;
  const tries = (["usual", "beyond"] as const).flatMap((free) => outlines(p.header, free));
  for (const outline of tries) {
    const area = areaOf(roomOf(outline));
    // Beyond its end only when there is no other way.
    if (looked.length && area < smallest) break;
    if (looked.length === OUTLINES || area > smallest * LARGER) break;
    if (freeArea(outline, p.header) < needed * ROOM) continue;
    const board = new Board(p, outline);
    if (!inserted(board, items)) continue;
    smallest = Math.min(smallest, area);
    improve(board, items, EFFORT * LOOK);
    looked.push({ board, worth: board.cost + AREA * area });
  }
  const best = looked.sort((a, b) => a.worth - b.worth)[0]?.board;
  if (!best) return null;
  improve(best, items, EFFORT);
  gather(best, items);
  return { outline: best.outline, put: best.put, cost: best.cost };
}
