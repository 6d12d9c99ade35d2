import type { BoardNet, BoardProblem, Item } from "./problem";
import { seat, takenBy, type Rect, type Seat, type Spot } from "./spots";
import { BOARD_STEP, LETTERS, RAIL_X, SIZES, type Half, type Pole, type SizeId } from "./sizes";

/** A jumper costs its length and the trouble of laying it, in pitches. */
const JUMPER = 4;
/** From a row to the rail of its own half, and across to that of the other. */
const TO_RAIL = 5;
const TO_FAR_RAIL = 16;
const ACROSS = 4;
/** A wire without a hole is worth any length of wire. */
const NO_HOLE = 1000;
/** Weights that only break ties: short legs, and the upper end of the board. */
const LEG = 0.3;
const LOW = 0.002;

/** What a pitch between a chip's supply pin and its capacitor weighs: more than a pitch of wire, since there it must be. */
const AWAY = 1.5;

const FREE = -1;
const NO_NET = -2;
const HOLES = 5;
const bit = (letter: string) => 1 << ("abcdefghij".indexOf(letter) % HOLES);
const bits = (letters: string) => [...letters].reduce((m, l) => m | bit(l), 0);
const COUNT = Array.from({ length: 32 }, (_, m) => [0, 1, 2, 3, 4].filter((k) => m & (1 << k)).length);

const meet = (a: Rect, b: Rect) => a.x1 < b.x2 && b.x1 < a.x2 && a.y1 < b.y2 && b.y1 < a.y2;

/**
 * What is on the breadboards: which row belongs to which net, how many of its holes are taken or covered, where bodies lie.
 * The cost is the length of the wires that are still needed, with a fixed price for each, and the way from capacitors to
 * their pins.
 */
export class Occupancy {
  private net: Int32Array;
  private pins: Int16Array;
  /** Holes of each row that are taken or covered, a bit each. */
  private gone: Uint8Array;
  private first: number[] = [];
  private seats = new Map<string, { item: Item; spot: Spot; at: Seat }>();
  private index: Map<string, number>;
  private rowsOf: Map<number, number>[];
  private costs: Float64Array;
  /** Bodies over each row of a rail, by board, half and pole. */
  private lids: { board: number; half: Half; pole: Pole; x: number; over: Uint8Array }[] = [];
  private extra = 0;
  private wired: ReadonlySet<string>;
  private hasRails: boolean;
  private helpers: Item[];

  constructor(
    private problem: BoardProblem,
    readonly sizes: readonly SizeId[],
  ) {
    let total = 0;
    for (const s of sizes) {
      this.first.push(total);
      total += 2 * SIZES[s].rows;
    }
    this.net = new Int32Array(total).fill(FREE);
    this.pins = new Int16Array(total);
    this.gone = new Uint8Array(total);
    this.index = new Map(problem.nets.map((n, i) => [n.id, i]));
    this.rowsOf = problem.nets.map(() => new Map());
    this.costs = new Float64Array(problem.nets.length);
    this.hasRails = sizes.some((s) => SIZES[s].railHoles > 0);
    for (const [board, size] of sizes.entries())
      for (const half of SIZES[size].railHoles ? (["left", "right"] as const) : [])
        for (const pole of ["-", "+"] as const)
          this.lids.push({
            board,
            half,
            pole,
            x: board * BOARD_STEP + RAIL_X[`${half}${pole}`],
            over: new Uint8Array(SIZES[size].rows + 2),
          });
    this.wired = new Set(problem.nets.flatMap((n) => n.on));
    this.helpers = problem.items.filter((i) => i.near);
  }

  get cost(): number {
    return this.costs.reduce((s, x) => s + x, 0) + this.extra + this.strain();
  }
  /** How far capacitors stand from the pins that they are for, weighed in pitches of wire. */
  strain(): number {
    let sum = 0;
    for (const item of this.helpers) {
      const [a, b] = [this.stripOf(item.ref, item.near!.leg), this.stripOf(item.near!.ref, item.near!.pin)];
      if (a !== undefined && b !== undefined) sum += this.apart(a, b) * AWAY;
    }
    return sum;
  }
  private stripOf(ref: string, pin: string): number | undefined {
    const known = this.seats.get(ref);
    const cell = known?.at.cells.find((x) => x.pin === pin);
    return known && cell && this.strip(known.spot.board, cell.half, cell.row);
  }
  spotOf(ref: string): Spot | undefined {
    return this.seats.get(ref)?.spot;
  }
  seatOf(ref: string): Seat | undefined {
    return this.seats.get(ref)?.at;
  }
  /** Rows (board, half, row) that a net's pins stand in now. */
  rowsWith(netId: string): { board: number; half: Half; row: number }[] {
    const i = this.index.get(netId);
    return i === undefined ? [] : [...this.rowsOf[i]!.keys()].map((s) => this.where(s));
  }
  private strip(board: number, half: Half, row: number): number {
    return this.first[board]! + (half === "left" ? 0 : SIZES[this.sizes[board]!].rows) + row - 1;
  }
  private where(strip: number): { board: number; half: Half; row: number } {
    let board = this.first.length - 1;
    while (this.first[board]! > strip) board--;
    const rows = SIZES[this.sizes[board]!].rows;
    const own = strip - this.first[board]!;
    return { board, half: own < rows ? "left" : "right", row: (own % rows) + 1 };
  }
  /** Wired pins count in the cost; others of the same net, such as further ground pins, may share a row but need no wire. */
  private isWired(item: Item, pin: string | null): boolean {
    return pin !== null && this.wired.has(`${item.ref}.${pin}`);
  }
  private netIndex(item: Item, pin: string | null): number {
    const id = pin === null ? undefined : this.problem.netOf.get(`${item.ref}.${pin}`);
    const i = id === undefined ? undefined : this.index.get(id);
    return i ?? NO_NET;
  }
  private apart(a: number, b: number): number {
    const [p, q] = [this.where(a), this.where(b)];
    const across = p.half === q.half ? 0 : ACROSS;
    return Math.abs(p.row - q.row) + across + Math.abs(p.board - q.board) * BOARD_STEP;
  }

  /** From a row to the nearest hole of its rail that no body lies on: beside it, or up and down. */
  private toRail(strip: number, halves: readonly Half[], pole: Pole): number {
    const { board, half, row } = this.where(strip);
    const near = halves.includes(half);
    const lid = this.lids.find((l) => l.board === board && l.half === (near ? half : halves[0]) && l.pole === pole);
    const base = near ? TO_RAIL : TO_FAR_RAIL;
    if (!lid || !lid.over[row]) return base;
    const last = lid.over.length - 2;
    for (let d = 1; d < last; d++)
      if ((row - d >= 1 && !lid.over[row - d]) || (row + d <= last && !lid.over[row + d]))
        return Math.max(base, base - 2 + d);
    return base + last;
  }

  /** Lays a body over the rails that it reaches, or lifts it; the nets of those rails have other ways then. */
  private cover(body: Rect | null, by: 1 | -1, touched: Set<number>) {
    if (!body) return;
    for (const lid of this.lids) {
      if (lid.x <= body.x1 || lid.x >= body.x2) continue;
      const from = Math.max(1, Math.ceil(body.y1));
      const to = Math.min(lid.over.length - 2, Math.floor(body.y2));
      for (let row = from; row <= to; row++) lid.over[row]! += by;
      if (from > to) continue;
      for (const [i, n] of this.problem.nets.entries()) if (n.rail?.pole === lid.pole) touched.add(i);
    }
  }

  /** Holes that the rows of a net lack: a tree over them has two ends a wire, and leads from beside the board end in them too. */
  private shortage(n: BoardNet, rows: number[]): number {
    if (!rows.length) return 0;
    const wanted = 2 * (rows.length - 1) + n.off.length;
    const free = rows.reduce((sum, r) => sum + HOLES - COUNT[this.gone[r]!]!, 0);
    return Math.max(0, wanted - free) * NO_HOLE;
  }

  /** Wires that a net needs with its rows as they are: a shortest tree, or one wire a row to its rail. */
  private netCost(n: BoardNet, rows: number[]): number {
    if (n.strip) return rows.length * (JUMPER + TO_RAIL);
    if (n.rail && this.hasRails) {
      const { halves, pole } = n.rail;
      return rows.reduce((s, r) => s + JUMPER + this.toRail(r, halves, pole), 0);
    }
    const short = this.shortage(n, rows);
    if (rows.length < 2) return short;
    const best = rows.map((r) => this.apart(rows[0]!, r));
    const open = new Set(rows.keys());
    open.delete(0);
    let sum = short;
    while (open.size) {
      let next = -1;
      for (const k of open) if (next < 0 || best[k]! < best[next]!) next = k;
      open.delete(next);
      sum += best[next]! + JUMPER;
      for (const k of open) best[k] = Math.min(best[k]!, this.apart(rows[next]!, rows[k]!));
    }
    return sum;
  }
  private refresh(nets: ReadonlySet<number>) {
    for (const i of nets) this.costs[i] = this.netCost(this.problem.nets[i]!, [...this.rowsOf[i]!.keys()]);
  }
  private own(item: Item, spot: Spot): number {
    const leg =
      item.print.kind === "bridge" && spot.to
        ? Math.hypot(spot.row - spot.to.row, spot.half === spot.to.half ? 0 : 3) * LEG
        : 0;
    return leg + spot.row * LOW;
  }
  /** Whether a part may sit there: inside, on no other body, in no row of another net, with a hole left for a wire. */
  fits(item: Item, spot: Spot): boolean {
    const at = seat(item, spot, this.sizes);
    if (!at) return false;
    // All that it takes of a row counts together: its legs, and what its body lies on beside them.
    const taken = new Map<number, { mine: number; wired: boolean }>();
    for (const cell of at.cells) {
      const s = this.strip(spot.board, cell.half, cell.row);
      const mine = bits(takenBy(at, cell));
      if (this.gone[s]! & mine) return false;
      const row = taken.get(s) ?? { mine: 0, wired: this.net[s] !== FREE };
      row.mine |= mine;
      taken.set(s, row);
      if (cell.covered) continue;
      const net = this.netIndex(item, cell.pin);
      if (this.net[s] !== FREE && (net === NO_NET || this.net[s] !== net)) return false;
      if (net !== NO_NET) row.wired = true;
    }
    // A row that loses its last free hole could not be wired any more.
    for (const [s, row] of taken) if (row.wired && COUNT[this.gone[s]! | row.mine]! >= HOLES) return false;
    const { body } = at;
    if (body) for (const o of this.seats.values()) if (o.at.body && meet(body, o.at.body)) return false;
    return true;
  }
  /** Free holes of a row, as letters. */
  freeAt(board: number, half: Half, row: number): string {
    const gone = this.gone[this.strip(board, half, row)]!;
    return [...LETTERS[half]].filter((l) => !(gone & bit(l))).join("");
  }

  place(item: Item, spot: Spot): void {
    const at = seat(item, spot, this.sizes)!;
    const touched = new Set<number>();
    for (const cell of at.cells) {
      const s = this.strip(spot.board, cell.half, cell.row);
      const net = this.netIndex(item, cell.pin);
      this.gone[s]! |= bits(takenBy(at, cell));
      if (cell.covered) {
        if (this.net[s]! >= 0) touched.add(this.net[s]!);
        continue;
      }
      this.net[s] = net;
      this.pins[s]!++;
      if (net >= 0 && this.isWired(item, cell.pin)) {
        this.rowsOf[net]!.set(s, (this.rowsOf[net]!.get(s) ?? 0) + 1);
        touched.add(net);
      }
    }
    this.cover(at.body, 1, touched);
    this.seats.set(item.ref, { item, spot, at });
    this.extra += this.own(item, spot);
    this.refresh(touched);
  }

  take(ref: string): Spot | undefined {
    const known = this.seats.get(ref);
    if (!known) return undefined;
    const { item, spot, at } = known;
    const touched = new Set<number>();
    for (const cell of at.cells) {
      const s = this.strip(spot.board, cell.half, cell.row);
      const net = this.netIndex(item, cell.pin);
      this.gone[s]! &= ~bits(takenBy(at, cell));
      if (cell.covered) {
        if (this.net[s]! >= 0) touched.add(this.net[s]!);
        continue;
      }
      if (--this.pins[s]! === 0) this.net[s] = FREE;
      if (net >= 0 && this.isWired(item, cell.pin)) {
        const left = this.rowsOf[net]!.get(s)! - 1;
        if (left) this.rowsOf[net]!.set(s, left);
        else this.rowsOf[net]!.delete(s);
        touched.add(net);
      }
    }
    this.cover(at.body, -1, touched);
    this.seats.delete(ref);
    this.extra -= this.own(item, spot);
    this.refresh(touched);
    return spot;
  }
}
