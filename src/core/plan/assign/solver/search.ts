import { endOf, type Problem } from "../problem";
import { alikeBuses, twinGroups, twinParts } from "./alike";
import { broken, extras } from "./legal";
import { Matching, NEVER, type Standing } from "./matching";
import { OpenNodes } from "./open";
import { enoughShared } from "./shared";

/** Ties are broken by printed order: real costs are scaled up and the pin's place in the header added. */
const SCALE = 1 << 16;

const popcount = (x: number) => {
  let n = 0;
  for (; x; x &= x - 1) n++;
  return n;
};

/** Nodes after which plans that only have other pins at the same price are no longer looked at. */
const TIES_UNTIL = 500;

/** One bit a bus: so many instances are weighed for one group at most, the ones printed first. */
const MOST_BUSES = 30;

/** A subtree: which bus each group may still take, which choices are out, where parts and rows of lines have to stand. */
interface Node {
  bound: number;
  /** Bit mask per group over its own list of candidate buses. */
  buses: Int32Array;
  banned: Uint8Array;
  /** Per part with several needs: allowed sides, 0 while undecided. */
  mask: Int32Array;
  /** Per order: anchor, -1 while undecided. */
  anchor: Int32Array;
  /** Prices by need and bus, filled when first asked for; handed down to subtrees where they stay the same. */
  cells: (Cell | undefined)[];
  /** The same for needs of undecided groups, over all buses that are left: by need, then by the mask of buses. */
  merged: Map<number, { mask: number; cell: Cell }>;
  /** The matching of the node above: only the rows that differ are matched anew. */
  above: { rows: Row[]; standing: Standing } | null;
}

/** What a need costs on every pin by one bus, by which choice, and at least. */
interface Cell {
  cost: Float64Array;
  pick: Int32Array;
  least: number;
}

/** The bus of a row whose group is not decided: its prices are the least that any of its buses asks. */
const OPEN = -2;

/** A row of the matching: a need with a pin of its own, or a bus line with everybody on it. */
interface Row {
  needs: number[];
  bus: number;
  cells: Cell[];
}

/** What the relaxation of a node tells. */
interface Relaxed {
  bound: number;
  /** What is decided beside the matching: sides that are paid for. */
  base: number;
  rows: Row[];
  matching: Matching;
  /** The choice that each need gets in the matching; -1 for needs of undecided groups. */
  choice: Int32Array;
  /** The row of every need; -1 for those that only count by their price. */
  rowOf: Int32Array;
}

type UseTest = (mode: string, slot: string | null) => boolean;

/** A need that takes a resource in the matching. */
interface Taken {
  n: number;
  row: number;
  mode: string;
  slot: string | null;
}

/** A way to take a conflict apart, and by how much the total grows at least. */
interface Way {
  bound: number;
  /** Bans the choices; notes the needs whose choices changed. */
  forbid(banned: Uint8Array, touched: Set<number>): void;
}

/** A group that may still take several buses, and what each of them costs beyond the matching. */
interface OpenGroup {
  g: number;
  ways: { bit: number; bus: number; price: number }[];
  least: number;
}

interface Conflict {
  rows: number[];
  ways: Way[];
}

/**
 * Branch and bound over bus instances, resource modes, header sides and rows of lines. At every node the cheapest matching
 * of lines and single pins is the bound, raised by what the reduced costs prove about sides and orders.
 */
export class Search {
  private readonly open = new OpenNodes<Node>(SCALE);
  private readonly start: Int32Array;
  private readonly pin: Int32Array;
  private readonly bus: Int32Array;
  private readonly price: Float64Array;
  private readonly side: Int32Array;
  private readonly busNames: string[] = [];
  private readonly sides: number;
  private readonly members: number[][];
  private readonly parts: number[][] = [];
  private readonly ordersOf: number[][] = [];
  /** Per need: its part (-1: the part has no other need), and its place in an order. */
  private readonly partOf: Int32Array;
  private readonly placeOf: ({ order: number; place: number } | null)[];
  /** Whether any choice of a need takes a shared resource. */
  private readonly shares: boolean[];
  private readonly clashOf: number[][];
  private readonly twin: number[];
  /** Parts that are alike in every need, without rows of their own: any swap of their pins is the same plan. */
  private readonly partTwins: number[][];
  /** Per group: the buses that all its needs could take. */
  private readonly candidates: number[][];
  /** Bus to the group that carries it, -1 for the host's own. */
  private readonly carrier: number[];
  /** Bus to its class of buses that are the same but for their name. */
  private readonly alike: number[];
  private readonly sideCost: number;
  private readonly orderCost: number;
  /** All prices are whole numbers, so that nothing lies between two of them; and the most that pins add to break a tie. */
  private readonly whole: boolean;
  private readonly mostTie: number;
  private readonly dead: boolean;
  /** One for all nodes: each is done with before the next begins. */
  private readonly matching: Matching;
  best = Infinity;
  bestChoice: number[] | null = null;
  nodes = 0;

  constructor(
    private readonly p: Problem,
    private readonly o: { anyPlan?: boolean } = {},
  ) {
    const { needs } = p;
    this.start = new Int32Array(needs.length + 1);
    needs.forEach((n, i) => (this.start[i + 1] = this.start[i]! + n.choices.length));
    const total = this.start[needs.length]!;
    this.pin = new Int32Array(total);
    this.bus = new Int32Array(total).fill(-1);
    this.price = new Float64Array(total);
    const names = new Map<string, number>();
    needs.forEach((n, i) =>
      n.choices.forEach((c, k) => {
        const at = this.start[i]! + k;
        this.pin[at] = c.pin;
        this.price[at] = o.anyPlan ? 0 : c.cost * SCALE + c.pin;
        if (c.bus === null) return;
        if (!names.has(c.bus)) names.set(c.bus, names.size);
        this.bus[at] = names.get(c.bus)!;
      }),
    );
    this.busNames = [...names.keys()];
    const headers = [...new Set(p.pins.map((x) => x.header))];
    this.sides = headers.length;
    this.side = Int32Array.from(p.pins, (x) => headers.indexOf(x.header));
    this.sideCost = o.anyPlan ? 0 : p.sideCost * SCALE;
    this.orderCost = o.anyPlan ? 0 : p.orderCost * SCALE;
    this.mostTie = needs.length * p.pins.length;
    this.whole =
      this.mostTie < SCALE &&
      [p.sideCost, p.orderCost, ...needs.flatMap((n) => n.choices.map((c) => c.cost))].every(Number.isInteger);
    this.members = p.groups.map(() => []);
    const byRef = new Map<string, number[]>();
    needs.forEach((n, i) => {
      if (n.group !== null) this.members[n.group]!.push(i);
      byRef.set(n.ref, [...(byRef.get(n.ref) ?? []), i]);
    });
    for (const [ref, list] of byRef) {
      if (list.length < 2) continue;
      this.parts.push(list);
      this.ordersOf.push(p.orders.flatMap((x, k) => (x.ref === ref && x.anchors.length ? [k] : [])));
    }
    this.shares = needs.map((n) => n.choices.some((c) => c.uses.length > 0));
    this.partOf = new Int32Array(needs.length).fill(-1);
    this.parts.forEach((list, k) => list.forEach((n) => (this.partOf[n] = k)));
    this.placeOf = needs.map(() => null);
    p.orders.forEach((x, order) => x.needs.forEach((n, place) => (this.placeOf[n] = { order, place })));
    this.clashOf = p.groups.map(() => []);
    for (const [a, b] of p.clashes) {
      this.clashOf[a]!.push(b);
      this.clashOf[b]!.push(a);
    }
    this.carrier = this.busNames.map((b) => p.under[b] ?? -1);
    this.alike = alikeBuses(p, this.busNames);
    this.matching = new Matching(p.pins.length);
    this.twin = twinGroups(p, (g) => this.alone(g));
    this.partTwins = twinParts(p, this.parts);
    this.dead = needs.some((n) => !n.choices.length);
    this.candidates = this.members.map((list) => {
      const each = list.map((n) => this.busesOf(n));
      return [...(each[0] ?? [])].filter((b) => each.every((s) => s.has(b))).slice(0, MOST_BUSES);
    });
    const buses = Int32Array.from(this.candidates, (list) => (2 ** list.length - 1) | 0);
    this.warmStart();
    if (!this.dead)
      this.open.push({
        bound: 0,
        buses,
        banned: new Uint8Array(total),
        mask: new Int32Array(this.parts.length),
        anchor: new Int32Array(p.orders.length).fill(-1),
        cells: [],
        merged: new Map(),
        above: null,
      });
  }

  /** What a subtree must be able to stay below. Among plans of one price the search for the pins printed first ends in time. */
  private get cut(): number {
    if (!this.whole || this.nodes < TIES_UNTIL || this.best === Infinity) return this.best;
    return Math.min(this.best, (Math.floor(this.best / SCALE) - 1) * SCALE + this.mostTie + 0.5);
  }

  /** The lowest that any open subtree can still reach; the best once the search is done. */
  get bound(): number {
    return Math.min(this.best, this.open.least());
  }

  private busesOf(n: number): Set<number> {
    const out = new Set<number>();
    for (let c = this.start[n]!; c < this.start[n + 1]!; c++) if (this.bus[c]! >= 0) out.add(this.bus[c]!);
    return out;
  }

  /** The bus of a group that is decided. */
  private busAt(buses: Int32Array, g: number): number {
    return this.candidates[g]![31 - Math.clz32(buses[g]!)]!;
  }

  /** The bit of a bus in a group's own list; 0 when it can't take that bus. */
  private bitOf(g: number, bus: number): number {
    const i = this.candidates[g]!.indexOf(bus);
    return i < 0 ? 0 : 1 << i;
  }

  /** A group whose part asks for nothing else: then its bus touches no other price. */
  private alone(g: number): boolean {
    const { ref } = this.p.groups[g]!;
    return this.p.needs.every((n) => n.ref !== ref || n.group === g) && !Object.values(this.p.under).includes(g);
  }

  /** The present plan, when it is whole and legal, is the first to beat. */
  private warmStart() {
    if (this.o.anyPlan) return;
    const choice = this.p.needs.map((n) => {
      const there = n.choices.map((c, k) => ({ c, k })).filter(({ c }) => n.present === endOf(this.p, c.pin));
      return there.sort((a, b) => a.c.cost - b.c.cost)[0]?.k ?? -1;
    });
    if (choice.includes(-1) || broken(this.p, choice).length) return;
    this.take(choice);
  }

  private take(choice: number[]) {
    const { side, order } = this.o.anyPlan ? { side: 0, order: 0 } : extras(this.p, choice);
    let sum = (side + order) * SCALE;
    choice.forEach((k, n) => (sum += this.price[this.start[n]! + k]!));
    if (sum >= this.best) return;
    this.best = sum;
    this.bestChoice = choice;
  }

  /** Works on up to `most` nodes. True when nothing is left to try: then the best is the optimum. */
  step(most: number): boolean {
    for (let i = 0; i < most; i++) {
      const node = this.open.pop(this.bestChoice !== null);
      if (!node) return true;
      if (this.o.anyPlan && this.bestChoice) {
        this.open.clear();
        return true;
      }
      if (node.bound < this.cut) {
        this.nodes++;
        this.expand(node);
      }
    }
    return this.open.size === 0;
  }

  /** Clashing groups lose a bus that is taken; a group with one bus left takes it. False when a group has none. */
  private propagate(buses: Int32Array): boolean {
    for (let again = true; again;) {
      again = false;
      for (let g = 0; g < buses.length; g++) {
        const m = buses[g]!;
        if (!this.members[g]!.length) continue;
        if (m === 0) return false;
        if (m & (m - 1)) continue;
        const b = this.busAt(buses, g);
        const gone = (h: number, bits: number) => {
          if (buses[h]! & bits) {
            buses[h] = buses[h]! & ~bits;
            again = true;
          }
        };
        for (const h of this.clashOf[g]!) {
          gone(h, this.bitOf(h, b));
          // What hangs on a channel meets everybody on the bus above, and the other way round.
          const carrier = this.carrier[b]!;
          if (carrier >= 0 && single(buses[carrier]!)) gone(h, this.bitOf(h, this.busAt(buses, carrier)));
          this.carrier.forEach((k, ch) => {
            if (k >= 0 && single(buses[k]!) && this.busAt(buses, k) === b) gone(h, this.bitOf(h, ch));
          });
        }
      }
    }
    return true;
  }

  private expand(node: Node) {
    const buses = Int32Array.from(node.buses);
    if (!this.propagate(buses)) return;
    const here: Node = { ...node, buses };
    const r = this.relax(here);
    if (!r || r.bound >= this.cut) return;
    const conflicts = this.conflicts(here, r);
    const spent = new Set<number>();
    let strained = 0;
    let hardest: Conflict | undefined;
    let most = -1;
    for (const c of conflicts) {
      const least = Math.min(...c.ways.map((w) => w.bound));
      if (least > most) {
        most = least;
        hardest = c;
      }
      // Conflicts about different rows cost their prices together.
      if (c.rows.some((x) => spent.has(x))) continue;
      strained += least;
      for (const x of c.rows) spent.add(x);
    }
    const relaxed = r.bound;
    r.bound += strained;
    const open = this.openGroups(here, r, spent);
    for (const o of open) r.bound += o.least;
    // What places cost may be the same reduced costs that tell a group's buses apart: never both together.
    const apart = r.bound;
    if (r.bound < this.cut && (this.sideCost || this.orderCost))
      r.bound += this.placesBound(here, r.rows, r.matching, spent);
    if (r.bound >= this.cut) return;
    here.bound = Math.max(node.bound, r.bound);
    here.above = { rows: r.rows, standing: r.matching.standing() };
    const settled = this.settledGroup(here, r, open);
    if (settled) {
      buses[settled.g] = settled.bit;
      this.open.push({ ...here, buses });
      return;
    }
    if (open.length) return this.branchBuses(here, open, apart);
    if (hardest) {
      if (!enoughShared(this.p, this.start, here.banned)) return;
      for (const w of hardest.ways) w.bound += relaxed;
      return this.branchForbid(here, hardest);
    }
    this.take([...r.choice].map((c, n) => c - this.start[n]!));
    if (r.bound < this.cut) this.branchPlaces(here, r);
  }

  /** What every undecided group costs on each of its buses, beyond what the matching holds; rows that pay for it are spent. */
  private openGroups(node: Node, r: Relaxed, spent: Set<number>): OpenGroup[] {
    const rowOf = new Map<number, number>();
    r.rows.forEach((x, i) => {
      if (x.bus === OPEN && !spent.has(i)) rowOf.set(x.needs[0]!, i);
    });
    const out: OpenGroup[] = [];
    for (let g = 0; g < node.buses.length; g++) {
      const mask = node.buses[g]!;
      if (!this.members[g]!.length || single(mask)) continue;
      const ways: OpenGroup["ways"] = [];
      for (const [i, bus] of this.candidates[g]!.entries()) {
        if (!(mask & (1 << i))) continue;
        let price = 0;
        for (const n of this.members[g]!) {
          const cell = this.cell(node, n, bus);
          const row = r.rowOf[n]!;
          price += row < 0 ? cell.least : rowOf.has(n) ? leastReduced(r.matching, row, cell.cost) : 0;
        }
        if (price < NEVER) ways.push({ bit: 1 << i, bus, price });
      }
      const least = ways.reduce((m, w) => Math.min(m, w.price), NEVER);
      if (least > 0) for (const n of this.members[g]!) if (rowOf.has(n)) spent.add(rowOf.get(n)!);
      out.push({ g, ways, least });
    }
    return out;
  }

  /** Whether nobody but `g` tells these two alike buses apart: all others may take both or neither. */
  private untold(buses: Int32Array, g: number, a: number, b: number): boolean {
    return buses.every((m, h) => h === g || ((m & this.bitOf(h, a)) === 0) === ((m & this.bitOf(h, b)) === 0));
  }

  /**
   * A group that loses nothing by joining lines that stand already, whatever comes later: its part asks for nothing else,
   * nobody it clashes with is undecided (nor what carries a channel between them), no other bus is cheaper for it, and those
   * lines cost it the same on every pin.
   */
  private settledGroup(node: Node, r: Relaxed, open: OpenGroup[]): { g: number; bit: number } | null {
    const isDecided = (h: number) => single(node.buses[h]!);
    const carried = (bus: number) => this.carrier[bus]! < 0 || isDecided(this.carrier[bus]!);
    for (const { g, ways } of open) {
      const rivals = this.clashOf[g]!;
      if (!this.alone(g) || !rivals.every((h) => isDecided(h) && carried(this.busAt(node.buses, h)))) continue;
      const price = (bus: number) => this.members[g]!.reduce((sum, n) => sum + this.cell(node, n, bus).least, 0);
      const least = Math.min(...ways.map((w) => price(w.bus)));
      const way = ways.find(
        (w) => price(w.bus) <= least && (!rivals.length || carried(w.bus)) && this.sameEverywhere(node, r, g, w.bus),
      );
      if (way) return { g, bit: way.bit };
    }
    return null;
  }

  /** Whether all lines of a group stand on this bus, on one header, at the same price wherever they end up there. */
  private sameEverywhere(node: Node, r: Relaxed, g: number, bus: number): boolean {
    const { needs } = this.p;
    const sides = new Set<number>();
    return this.members[g]!.every((n) => {
      const { share } = needs[n]!;
      if (share === null) return false;
      const row = r.rows.findIndex((x) => x.bus === bus && needs[x.needs[0]!]!.share === share);
      if (row < 0) return false;
      const cell = this.cell(node, n, bus);
      return r.matching.rows[row]!.every((cost, c) => {
        if (cost === NEVER) return true;
        sides.add(this.side[c]!);
        const free = cell.pick[c]! >= 0 && !needs[n]!.choices[cell.pick[c]! - this.start[n]!]!.uses.length;
        return free && Math.abs(cell.cost[c]! - cell.least) < SCALE && sides.size === 1;
      });
    });
  }

  /**
   * Decides the group with the fewest buses left; of these the one whose second best costs most. `bound`: of the matching,
   * its conflicts and all undecided groups at their cheapest.
   */
  private branchBuses(node: Node, open: OpenGroup[], bound: number) {
    const second = (o: OpenGroup) => o.ways.map((w) => w.price).sort((a, b) => a - b)[1] ?? NEVER;
    const { g, ways, least } = open.reduce((a, b) =>
      b.ways.length < a.ways.length || (b.ways.length === a.ways.length && second(b) - b.least > second(a) - a.least)
        ? b
        : a,
    );
    const tried: number[] = [];
    const t = this.twin[g]!;
    const kept = ways.filter((w) => {
      // Of alike groups the later takes the later bus.
      if (t >= 0 && single(node.buses[t]!) && node.buses[t]! > w.bit) return false;
      if (tried.some((a) => this.alike[a] === this.alike[w.bus] && this.untold(node.buses, g, a, w.bus))) return false;
      tried.push(w.bus);
      return Math.max(node.bound, bound - least + w.price) < this.cut;
    });
    kept.sort((a, b) => b.price - a.price || b.bit - a.bit);
    for (const w of kept) {
      const buses = Int32Array.from(node.buses);
      buses[g] = w.bit;
      this.open.push({ ...node, buses, bound: Math.max(node.bound, bound - least + w.price) });
    }
  }

  /** The same prices without those of some needs, whose choices have changed. */
  private without(node: Node, needs: Iterable<number>): Pick<Node, "cells" | "merged"> {
    const width = this.busNames.length + 1;
    const cells = [...node.cells];
    const merged = new Map(node.merged);
    for (const n of needs) {
      for (let k = n * width; k < (n + 1) * width; k++) cells[k] = undefined;
      merged.delete(n);
    }
    return { cells, merged };
  }

  private branchForbid(node: Node, conflict: Conflict) {
    const ways = conflict.ways
      .map((w) => ({ ...w, bound: Math.max(node.bound, w.bound) }))
      .filter((w) => w.bound < this.cut)
      .sort((x, y) => y.bound - x.bound);
    for (const w of ways) {
      const banned = Uint8Array.from(node.banned);
      const touched = new Set<number>();
      w.forbid(banned, touched);
      this.open.push({ ...node, banned, bound: w.bound, ...this.without(node, touched) });
    }
  }

  /** Bans the choices of a need (of all needs when `only` is null) that use a resource in the way described. */
  private ban(
    banned: Uint8Array,
    touched: Set<number>,
    resource: number,
    test: UseTest,
    only: number | null,
    keep = false,
  ) {
    const { needs } = this.p;
    for (let n = only ?? 0; n < (only === null ? needs.length : only + 1); n++) {
      if (!this.shares[n]) continue;
      needs[n]!.choices.forEach((c, k) => {
        const at = this.start[n]! + k;
        if (banned[at] || c.uses.some((u) => u.resource === resource && test(u.mode, u.slot)) === keep) return;
        banned[at] = 1;
        touched.add(n);
      });
    }
  }

  /** By how much the total grows at least when a row leaves all columns where `test` holds for the need's choice. */
  private leaving(r: Relaxed, row: number, n: number, stays: (c: number) => boolean): number {
    let least = NEVER;
    for (let c = this.start[n]!; c < this.start[n + 1]!; c++) {
      if (!stays(c) || this.bus[c] !== r.rows[row]!.bus) continue;
      const rc = r.matching.reduced(row, this.pin[c]!);
      if (rc < least) least = rc;
    }
    return least;
  }

  /** Every conflict over a shared resource in the matching: the rows it is about, and the ways to take it apart. */
  private conflicts(node: Node, r: Relaxed): Conflict[] {
    const { p } = this;
    const out: Conflict[] = [];
    if (!p.resources.length) return out;
    const uses = new Map<number, Taken[]>();
    const rowOf = new Map<number, number>();
    r.rows.forEach((x, i) => x.needs.forEach((n) => rowOf.set(n, i)));
    r.choice.forEach((c, n) => {
      if (c < 0) return;
      for (const u of p.needs[n]!.choices[c - this.start[n]!]!.uses)
        uses.set(u.resource, [...(uses.get(u.resource) ?? []), { n, row: rowOf.get(n)!, mode: u.mode, slot: u.slot }]);
    });
    /** What it costs when these needs stop using the resource in this way. */
    const price = (list: Taken[], i: number, test: UseTest) => {
      const seen = new Set<number>();
      let sum = 0;
      for (const t of list) {
        if (seen.has(t.row)) continue;
        seen.add(t.row);
        sum += this.leaving(r, t.row, t.n, (c) => {
          if (node.banned[c]) return false;
          return !p.needs[t.n]!.choices[c - this.start[t.n]!]!.uses.some(
            (u) => u.resource === i && test(u.mode, u.slot),
          );
        });
      }
      return sum;
    };
    for (const [i, mine] of uses) {
      const { modes: most, most: served } = p.resources[i]!;
      if (mine.length < 2) continue;
      const rows = [...new Set(mine.map((t) => t.row))];
      const modes = [...new Set(mine.map((t) => t.mode))];
      if (modes.length > most) {
        // A plain timer gets one mode; of several at once, one that is there now must go.
        const ways =
          most === 1
            ? this.modesOf(i, node).map((m): Way => {
                const others: UseTest = (mode) => mode !== m;
                return {
                  bound: price(
                    mine.filter((t) => t.mode !== m),
                    i,
                    others,
                  ),
                  forbid: (banned, touched) => this.ban(banned, touched, i, others, null),
                };
              })
            : modes.slice(0, most + 1).map((m): Way => {
                const it: UseTest = (mode) => mode === m;
                return {
                  bound: price(
                    mine.filter((t) => t.mode === m),
                    i,
                    it,
                  ),
                  forbid: (banned, touched) => this.ban(banned, touched, i, it, null),
                };
              });
        out.push({ rows, ways });
        continue;
      }
      const users = [...new Map(mine.map((t) => [t.n, t])).values()];
      if (users.length > served) {
        out.push({ rows, ways: this.oneLeaves(users.slice(0, served + 1), i, () => true, price) });
        continue;
      }
      const bySlot = new Map<string, Taken[]>();
      for (const t of mine) if (t.slot !== null) bySlot.set(t.slot, [...(bySlot.get(t.slot) ?? []), t]);
      for (const [slot, list] of bySlot) {
        const two = [...new Map(list.map((t) => [t.n, t])).values()].slice(0, 2);
        if (two.length === 2)
          out.push({ rows: two.map((t) => t.row), ways: this.oneLeaves(two, i, (_m, s) => s === slot, price) });
      }
    }
    return out;
  }

  /** Of these needs one must stop; in its way all before it are held to what they do now, so that no plan is tried twice. */
  private oneLeaves(
    list: Taken[],
    resource: number,
    test: UseTest,
    price: (list: Taken[], i: number, test: UseTest) => number,
  ): Way[] {
    return list.map((t, k) => ({
      bound: price([t], resource, test),
      forbid: (banned, touched) => {
        this.ban(banned, touched, resource, test, t.n);
        for (const before of list.slice(0, k)) this.ban(banned, touched, resource, test, before.n, true);
      },
    }));
  }

  /** The modes in which a resource can still be used. */
  private modesOf(resource: number, node: Node): string[] {
    const out = new Set<string>();
    this.p.needs.forEach((need, n) =>
      need.choices.forEach((c, k) => {
        if (!node.banned[this.start[n]! + k]) for (const u of c.uses) if (u.resource === resource) out.add(u.mode);
      }),
    );
    return [...out];
  }

  private cell(node: Node, n: number, bus: number): Cell {
    const at = n * (this.busNames.length + 1) + bus + 1;
    return (node.cells[at] ??= this.makeCell(node, n, bus));
  }

  private makeCell(node: Node, n: number, bus: number): Cell {
    const columns = this.p.pins.length;
    const cost = new Float64Array(columns).fill(NEVER);
    const pick = new Int32Array(columns).fill(-1);
    const part = this.partOf[n]!;
    const allowed = part >= 0 && node.mask[part] ? node.mask[part]! : -1;
    const place = this.placeOf[n];
    const anchor = place ? node.anchor[place.order]! : -1;
    const stand = place && anchor >= 0 ? this.p.orders[place.order]!.anchors[anchor]![place.place]! : -1;
    const off = anchor >= 0 ? this.orderCost : 0;
    let least = NEVER;
    for (let c = this.start[n]!; c < this.start[n + 1]!; c++) {
      if (node.banned[c] || this.bus[c] !== bus) continue;
      const pin = this.pin[c]!;
      if (!(allowed & (1 << this.side[pin]!))) continue;
      const price = this.price[c]! + (pin === stand ? 0 : off);
      if (price >= cost[pin]!) continue;
      cost[pin] = price;
      pick[pin] = c;
      if (price < least) least = price;
    }
    return { cost, pick, least };
  }

  /** The prices of a row: of its one need, or summed over everybody on the line. */
  private priceRow(cells: Cell[]): Float64Array {
    if (cells.length === 1) return cells[0]!.cost;
    const sum = Float64Array.from(cells[0]!.cost);
    for (let k = 1; k < cells.length; k++) for (let c = 0; c < sum.length; c++) sum[c] = sum[c]! + cells[k]!.cost[c]!;
    return sum;
  }

  private rowsOf(node: Node): Row[] {
    const rows: Row[] = [];
    const lines = new Map<string, Row>();
    const { needs } = this.p;
    needs.forEach((n, i) => {
      if (n.group === null) return rows.push({ needs: [i], bus: -1, cells: [this.cell(node, i, -1)] });
      if (!single(node.buses[n.group]!)) return;
      const bus = this.busAt(node.buses, n.group);
      const cell = this.cell(node, i, bus);
      if (n.share === null) return rows.push({ needs: [i], bus, cells: [cell] });
      const key = `${bus}|${n.share}`;
      const line = lines.get(key);
      if (line) {
        line.cells.push(cell);
        return line.needs.push(i);
      }
      const row = { needs: [i], bus, cells: [cell] };
      lines.set(key, row);
      return rows.push(row);
    });
    // Undecided groups: what nobody shares takes a pin on any bus, and so does a line that has no bus yet.
    needs.forEach((n, i) => {
      if (n.group === null || single(node.buses[n.group]!)) return;
      if (n.share !== null) {
        if (this.mayJoin(node, n.group, n.share, lines)) return;
        lines.set(`open|${n.share}`, { needs: [i], bus: OPEN, cells: [] });
      }
      rows.push({ needs: [i], bus: OPEN, cells: [this.mergedCell(node, i)] });
    });
    return rows;
  }

  /** Whether a line of an undecided group could be one that has its row already. */
  private mayJoin(node: Node, g: number, share: string, lines: ReadonlyMap<string, Row>): boolean {
    if (lines.has(`open|${share}`)) return true;
    return this.candidates[g]!.some((b, i) => node.buses[g]! & (1 << i) && lines.has(`${b}|${share}`));
  }

  /** The least that a need costs on every pin by any bus that its group may still take. */
  private mergedCell(node: Node, n: number): Cell {
    const g = this.p.needs[n]!.group!;
    const mask = node.buses[g]!;
    const known = node.merged.get(n);
    if (known?.mask === mask) return known.cell;
    const cost = new Float64Array(this.p.pins.length).fill(NEVER);
    let least = NEVER;
    for (const [i, b] of this.candidates[g]!.entries()) {
      if (!(mask & (1 << i))) continue;
      const one = this.cell(node, n, b);
      least = Math.min(least, one.least);
      for (let c = 0; c < cost.length; c++) if (one.cost[c]! < cost[c]!) cost[c] = one.cost[c]!;
    }
    const cell = { cost, pick: NOTHING, least };
    node.merged.set(n, { mask, cell });
    return cell;
  }

  /** Matches these rows, beginning with what stood in the node above; the rows by their place in the matching, or null. */
  private matched(wanted: Row[], above: Node["above"]): Row[] | null {
    const { matching } = this;
    if (above) matching.restore(above.standing);
    else matching.reset();
    const rows = above ? [...above.rows] : [];
    const placeOf = new Int32Array(this.p.needs.length).fill(-1);
    rows.forEach((r, i) => r.needs.forEach((n) => (placeOf[n] = i)));
    const user = new Int32Array(rows.length).fill(-1);
    wanted.forEach((row, w) => {
      const known = row.needs.find((n) => placeOf[n]! >= 0 && user[placeOf[n]!]! < 0);
      if (known !== undefined) user[placeOf[known]!] = w;
    });
    // A line of an undecided group that joined another leaves its own row empty.
    for (let at = rows.length - 1; at >= 0; at--) {
      if (user[at]! >= 0) continue;
      matching.drop(at);
      const last = rows.pop()!;
      if (at === rows.length) continue;
      rows[at] = last;
      user[at] = user[rows.length]!;
    }
    const seated = new Set<number>();
    for (let at = 0; at < rows.length; at++) {
      const [old, row] = [rows[at]!, wanted[user[at]!]!];
      seated.add(user[at]!);
      rows[at] = row;
      if (old.cells.length === row.cells.length && old.cells.every((c, k) => c === row.cells[k])) continue;
      if (!matching.change(at, this.priceRow(row.cells))) return null;
    }
    for (const [w, row] of wanted.entries()) {
      if (seated.has(w)) continue;
      rows.push(row);
      if (!matching.add(this.priceRow(row.cells))) return null;
    }
    return rows;
  }

  /** The matching of everything that is decided so far, with a lower bound for the whole subtree. */
  private relax(node: Node): Relaxed | null {
    let base = 0;
    this.parts.forEach((_, k) => {
      if (node.mask[k]) base += (popcount(node.mask[k]!) - 1) * this.sideCost;
    });
    if (base >= this.cut) return null;
    const rows = this.matched(this.rowsOf(node), node.above);
    if (!rows) return null;
    const { matching } = this;
    const columns = matching.columnsOfRows();
    const choice = new Int32Array(this.p.needs.length).fill(-1);
    const rowOf = new Int32Array(this.p.needs.length).fill(-1);
    rows.forEach((row, i) =>
      row.needs.forEach((n, k) => {
        rowOf[n] = i;
        if (row.bus !== OPEN) choice[n] = row.cells[k]!.pick[columns[i]!]!;
      }),
    );
    const bound = base + matching.total();
    return { bound, base, rows, matching, choice, rowOf };
  }

  /** Smallest reduced cost of a row on each side. */
  private sideCosts(matching: Matching, row: number): Float64Array {
    const out = new Float64Array(this.sides).fill(NEVER);
    const costs = matching.rows[row]!;
    for (let c = 0; c < costs.length; c++) {
      if (costs[c] === NEVER) continue;
      const rc = matching.reduced(row, c);
      const s = this.side[c]!;
      if (rc < out[s]!) out[s] = rc;
    }
    return out;
  }

  /** What a part's sides and rows of lines cost at least, by reduced costs of the rows that are its own. */
  private placesBound(node: Node, rows: Row[], matching: Matching, spent: ReadonlySet<number>): number {
    let sum = 0;
    const own = new Map<number, number>();
    rows.forEach((r, i) => {
      if (r.needs.length === 1 && !spent.has(i)) own.set(r.needs[0]!, i);
    });
    this.parts.forEach((list, k) => {
      const mine = list.flatMap((n) => (own.has(n) ? [own.get(n)!] : []));
      if (!mine.length) return;
      const ordered = new Set<number>();
      let orders = 0;
      for (const o of this.ordersOf[k]!) {
        if (node.anchor[o]! >= 0) continue;
        const found = this.p.orders[o]!.needs.map((n) => own.get(n) ?? -1);
        if (found.includes(-1)) continue;
        orders += Math.min(...this.p.orders[o]!.anchors.map((a) => this.anchorBound(matching, found, a)));
        for (const r of found) ordered.add(r);
      }
      let best = orders;
      if (!node.mask[k] && this.sideCost && mine.length > 1) {
        const bySide = mine.map((r) => this.sideCosts(matching, r));
        best = Math.max(best, this.maskBound(bySide).cost);
        if (orders && ordered.size) {
          const rest = bySide.filter((_, i) => !ordered.has(mine[i]!));
          best = Math.max(best, orders + (rest.length > 1 ? this.maskBound(rest).cost : 0));
        }
      }
      sum += best;
    });
    return sum;
  }

  private anchorBound(matching: Matching, rows: number[], anchor: number[]): number {
    let sum = 0;
    for (let k = 0; k < rows.length; k++) {
      const there = anchor[k]! >= 0 ? matching.reduced(rows[k]!, anchor[k]!) : NEVER;
      sum += Math.min(this.orderCost, there);
    }
    return sum;
  }

  /** The cheapest set of sides for rows with these reduced costs. */
  private maskBound(bySide: Float64Array[]): { cost: number; mask: number } {
    let cost = NEVER;
    let mask = 0;
    for (let m = 1; m < 1 << this.sides; m++) {
      let sum = (popcount(m) - 1) * this.sideCost;
      for (let i = 0; i < bySide.length && sum < cost; i++) {
        let least = NEVER;
        for (let s = 0; s < this.sides; s++) if (m & (1 << s) && bySide[i]![s]! < least) least = bySide[i]![s]!;
        sum += least;
      }
      if (sum < cost) {
        cost = sum;
        mask = m;
      }
    }
    return { cost, mask };
  }

  /** Branches on the part or the row of lines whose place costs most in this matching. */
  private branchPlaces(node: Node, r: Relaxed) {
    const pinOf = (n: number) => this.pin[r.choice[n]!]!;
    let worst = 0;
    let part = -1;
    this.parts.forEach((list, k) => {
      if (node.mask[k]) return;
      let mask = 0;
      for (const n of list) mask |= 1 << this.side[pinOf(n)]!;
      const cost = (popcount(mask) - 1) * this.sideCost;
      // Of equals the one with the most wires: it decides most.
      if (cost > worst || (cost === worst && part >= 0 && list.length > this.parts[part]!.length)) {
        worst = cost;
        part = k;
      }
    });
    let order = -1;
    this.p.orders.forEach((o, k) => {
      if (node.anchor[k]! >= 0 || !o.anchors.length) return;
      const out = Math.min(...o.anchors.map((a) => o.needs.filter((n, i) => pinOf(n) !== a[i]).length));
      if (out * this.orderCost > worst) {
        worst = out * this.orderCost;
        order = k;
      }
    });
    if (order >= 0) this.branchAnchors(node, r, order);
    else if (part >= 0) this.branchSides(node, r, part);
  }

  private branchAnchors(node: Node, r: Relaxed, order: number) {
    const o = this.p.orders[order]!;
    const rows = o.needs.map((n) => r.rows.findIndex((x) => x.needs.includes(n)));
    const base = r.base + r.matching.total();
    const ways = o.anchors
      .map((a, k) => ({ k, bound: Math.max(node.bound, base + this.anchorBound(r.matching, rows, a)) }))
      .filter((w) => w.bound < this.cut)
      .sort((a, b) => b.bound - a.bound || b.k - a.k);
    for (const w of ways) {
      const anchor = Int32Array.from(node.anchor);
      anchor[order] = w.k;
      this.open.push({ ...node, anchor, bound: w.bound, ...this.without(node, o.needs) });
    }
  }

  /** Whether a twin of this part has been decided so that these sides are the same plan with the two swapped. */
  private mirrored(node: Node, part: number, mask: number): boolean {
    return this.partTwins[part]!.some((t) => {
      const theirs = node.mask[t]!;
      if (!theirs || (t < part ? theirs <= mask : mask <= theirs)) return false;
      return this.swaps(node, part, t);
    });
  }

  /** Whether nothing that is decided yet tells two twins apart. */
  private swaps(node: Node, a: number, b: number): boolean {
    return this.parts[a]!.every((n, i) => {
      const m = this.parts[b]![i]!;
      const [g, h] = [this.p.needs[n]!.group, this.p.needs[m]!.group];
      if (g !== null && h !== null && node.buses[g] !== node.buses[h]) return false;
      for (let k = 0; k < this.start[n + 1]! - this.start[n]!; k++)
        if (node.banned[this.start[n]! + k] !== node.banned[this.start[m]! + k]) return false;
      return true;
    });
  }

  private branchSides(node: Node, r: Relaxed, part: number) {
    const list = this.parts[part]!;
    const rows = [...new Set(list.map((n) => r.rows.findIndex((x) => x.needs.includes(n))))];
    const bySide = rows.map((row) => this.sideCosts(r.matching, row));
    const base = r.base + r.matching.total();
    const ways: { mask: number; bound: number }[] = [];
    for (let mask = 1; mask < 1 << this.sides; mask++) {
      if (popcount(mask) > list.length) continue;
      let sum = base + (popcount(mask) - 1) * this.sideCost;
      for (const costs of bySide) {
        let least = NEVER;
        for (let s = 0; s < this.sides; s++) if (mask & (1 << s) && costs[s]! < least) least = costs[s]!;
        sum += least;
      }
      if (sum < this.cut && !this.mirrored(node, part, mask)) ways.push({ mask, bound: Math.max(node.bound, sum) });
    }
    ways.sort((a, b) => b.bound - a.bound || popcount(b.mask) - popcount(a.mask) || b.mask - a.mask);
    for (const w of ways) {
      const mask = Int32Array.from(node.mask);
      mask[part] = w.mask;
      this.open.push({ ...node, mask, bound: w.bound, ...this.without(node, list) });
    }
  }
}

/** Rows of undecided groups tell no choice. */
const NOTHING = new Int32Array(0);

/** The least reduced cost of a row over the columns that these prices allow. */
function leastReduced(m: Matching, row: number, cost: Float64Array): number {
  let least = NEVER;
  for (let c = 0; c < cost.length; c++) {
    if (cost[c] === NEVER) continue;
    const rc = m.reduced(row, c) + (cost[c]! - m.rows[row]![c]!);
    if (rc < least) least = rc;
  }
  return least;
}

const single = (mask: number) => mask !== 0 && (mask & (mask - 1)) === 0;
