import { endOf, type Problem } from "../problem";
import { broken, extras } from "./legal";
import { Matching, NEVER } from "./matching";
import { enoughShared } from "./shared";

/** Ties are broken by printed order: real costs are scaled up and the pin's place in the header added. */
const SCALE = 1 << 16;

const popcount = (x: number) => {
  let n = 0;
  for (; x; x &= x - 1) n++;
  return n;
};

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
}

/** What a need costs on every pin by one bus, by which choice, and at least. */
interface Cell {
  cost: Float64Array;
  pick: Int32Array;
  least: number;
}

/** A row of the matching: a need with a pin of its own, or a bus line with everybody on it. */
interface Row {
  needs: number[];
  bus: number;
}

/** What the relaxation of a node tells. */
interface Relaxed {
  bound: number;
  /** What is decided beside the matching: undecided groups at their cheapest, sides that are paid for. */
  base: number;
  rows: Row[];
  matching: Matching;
  /** The choice that each need gets in the matching; -1 for needs of undecided groups. */
  choice: Int32Array;
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

interface Conflict {
  rows: number[];
  ways: Way[];
}

/**
 * Branch and bound over bus instances, resource modes, header sides and rows of lines. At every node the cheapest matching
 * of lines and single pins is the bound, raised by what the reduced costs prove about sides and orders.
 */
export class Search {
  private readonly stack: Node[] = [];
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
  /** Per group: the buses that all its needs could take. */
  private readonly candidates: number[][];
  /** Bus to the group that carries it, -1 for the host's own. */
  private readonly carrier: number[];
  private readonly sideCost: number;
  private readonly orderCost: number;
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
    this.matching = new Matching(p.pins.length);
    this.twin = this.twins();
    this.dead = needs.some((n) => !n.choices.length);
    this.candidates = this.members.map((list) => {
      const each = list.map((n) => this.busesOf(n));
      return [...(each[0] ?? [])].filter((b) => each.every((s) => s.has(b))).slice(0, MOST_BUSES);
    });
    const buses = Int32Array.from(this.candidates, (list) => (2 ** list.length - 1) | 0);
    this.warmStart();
    if (!this.dead)
      this.stack.push({
        bound: 0,
        buses,
        banned: new Uint8Array(total),
        mask: new Int32Array(this.parts.length),
        anchor: new Int32Array(p.orders.length).fill(-1),
        cells: [],
      });
  }

  /** The lowest that any open subtree can still reach; the best once the search is done. */
  get bound(): number {
    return this.stack.reduce((least, n) => Math.min(least, n.bound), this.best);
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

  /** Groups that are alike in every choice and clash with one another: any swap of their buses is the same plan. */
  private twins(): number[] {
    const looks = this.members.map((list) =>
      JSON.stringify(list.map((n) => this.p.needs[n]!.choices.map((c) => [c.pin, c.bus, c.cost, c.uses]))),
    );
    return looks.map((l, g) => {
      for (let h = g - 1; h >= 0; h--)
        if (looks[h] === l && this.members[g]!.length && this.clashOf[g]!.includes(h) && this.alone(g) && this.alone(h))
          return h;
      return -1;
    });
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
      const node = this.stack.pop();
      if (!node) return true;
      if (this.o.anyPlan && this.bestChoice) {
        this.stack.length = 0;
        return true;
      }
      if (node.bound < this.best) {
        this.nodes++;
        this.expand(node);
      }
    }
    return this.stack.length === 0;
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
    if (!r || r.bound >= this.best) return;
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
    if (r.bound < this.best && (this.sideCost || this.orderCost))
      r.bound += this.placesBound(here, r.rows, r.matching, spent);
    if (r.bound >= this.best) return;
    here.bound = Math.max(node.bound, r.bound);
    const open = this.openGroup(buses);
    if (open >= 0) return this.branchBuses(here, open);
    if (hardest) {
      if (!enoughShared(this.p, this.start, here.banned)) return;
      for (const w of hardest.ways) w.bound += relaxed;
      return this.branchForbid(here, hardest);
    }
    this.take([...r.choice].map((c, n) => c - this.start[n]!));
    if (r.bound < this.best) this.branchPlaces(here, r);
  }

  private openGroup(buses: Int32Array): number {
    let at = -1;
    let fewest = Infinity;
    for (let g = 0; g < buses.length; g++) {
      const n = popcount(buses[g]!);
      if (n > 1 && n < fewest) {
        fewest = n;
        at = g;
      }
    }
    return at;
  }

  private branchBuses(node: Node, g: number) {
    const ways: { mask: number; price: number }[] = [];
    for (const [i, b] of this.candidates[g]!.entries()) {
      if (!(node.buses[g]! & (1 << i))) continue;
      const t = this.twin[g]!;
      // Of alike groups the later takes the later bus.
      if (t >= 0 && single(node.buses[t]!) && 31 - Math.clz32(node.buses[t]!) > i) continue;
      const price = this.groupPrice(node, g, b);
      if (price < NEVER) ways.push({ mask: 1 << i, price });
    }
    ways.sort((a, b) => b.price - a.price || b.mask - a.mask);
    for (const w of ways) {
      const buses = Int32Array.from(node.buses);
      buses[g] = w.mask;
      this.stack.push({ ...node, buses });
    }
  }

  private groupPrice(node: Node, g: number, bus: number): number {
    let sum = 0;
    for (const n of this.members[g]!) sum += this.cell(node, n, bus).least;
    return sum;
  }

  /** The same prices without those of some needs, whose choices have changed. */
  private without(node: Node, needs: Iterable<number>): Node["cells"] {
    const width = this.busNames.length + 1;
    const cells = [...node.cells];
    for (const n of needs) for (let k = n * width; k < (n + 1) * width; k++) cells[k] = undefined;
    return cells;
  }

  private branchForbid(node: Node, conflict: Conflict) {
    const ways = conflict.ways
      .map((w) => ({ ...w, bound: Math.max(node.bound, w.bound) }))
      .filter((w) => w.bound < this.best)
      .sort((x, y) => y.bound - x.bound);
    for (const w of ways) {
      const banned = Uint8Array.from(node.banned);
      const touched = new Set<number>();
      w.forbid(banned, touched);
      this.stack.push({ ...node, banned, bound: w.bound, cells: this.without(node, touched) });
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

  private rowsOf(buses: Int32Array): Row[] {
    const rows: Row[] = [];
    const lines = new Map<string, Row>();
    this.p.needs.forEach((n, i) => {
      if (n.group === null) return rows.push({ needs: [i], bus: -1 });
      if (!single(buses[n.group]!)) return;
      const bus = this.busAt(buses, n.group);
      if (n.share === null) return rows.push({ needs: [i], bus });
      const key = `${bus}|${n.share}`;
      const line = lines.get(key);
      if (line) return line.needs.push(i);
      const row = { needs: [i], bus };
      lines.set(key, row);
      return rows.push(row);
    });
    return rows;
  }

  /** The matching of everything that is decided so far, with a lower bound for the whole subtree. */
  private relax(node: Node): Relaxed | null {
    const rows = this.rowsOf(node.buses);
    let base = 0;
    for (let g = 0; g < node.buses.length; g++) {
      if (!this.members[g]!.length || single(node.buses[g]!)) continue;
      let least = NEVER;
      for (const [i, b] of this.candidates[g]!.entries())
        if (node.buses[g]! & (1 << i)) least = Math.min(least, this.groupPrice(node, g, b));
      base += least;
    }
    this.parts.forEach((_, k) => {
      if (node.mask[k]) base += (popcount(node.mask[k]!) - 1) * this.sideCost;
    });
    if (base >= this.best) return null;
    const { matching } = this;
    matching.reset();
    const cells: Cell[][] = [];
    for (const row of rows) {
      const mine = row.needs.map((n) => this.cell(node, n, row.bus));
      if (!matching.add(this.priceRow(mine))) return null;
      cells.push(mine);
    }
    const columns = matching.columnsOfRows();
    const choice = new Int32Array(this.p.needs.length).fill(-1);
    rows.forEach((row, i) => row.needs.forEach((n, k) => (choice[n] = cells[i]![k]!.pick[columns[i]!]!)));
    const bound = base + matching.total();
    return { bound, base, rows, matching, choice };
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
      if (cost > worst) {
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
      .filter((w) => w.bound < this.best)
      .sort((a, b) => b.bound - a.bound || b.k - a.k);
    for (const w of ways) {
      const anchor = Int32Array.from(node.anchor);
      anchor[order] = w.k;
      this.stack.push({ ...node, anchor, bound: w.bound, cells: this.without(node, o.needs) });
    }
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
      if (sum < this.best) ways.push({ mask, bound: Math.max(node.bound, sum) });
    }
    ways.sort((a, b) => b.bound - a.bound || popcount(b.mask) - popcount(a.mask) || b.mask - a.mask);
    for (const w of ways) {
      const mask = Int32Array.from(node.mask);
      mask[part] = w.mask;
      this.stack.push({ ...node, mask, bound: w.bound, cells: this.without(node, list) });
    }
  }
}

const single = (mask: number) => mask !== 0 && (mask & (mask - 1)) === 0;
