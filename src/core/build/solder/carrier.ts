import type { Circuit } from "../../circuit";
import { Union } from "../../circuit/netlist/union";
import { boardProblem, PITCH_MM, railRow, readHole, usedTo, type Hole, type Layout } from "../breadboard";

/** A hole of the carrier, counted from the upper left corner of the side with the parts. Rows are those of the breadboard. */
export interface At {
  row: number;
  column: number;
}
interface Point extends At {
  net: string;
  says: string;
  /** Must be joined with the others of its net; further pins that the part joins inside need not be. */
  wired: boolean;
}
/** Holes of one row that belong together: a piece of strip, or a bare wire on the back of a board without strips. */
export interface Piece {
  row: number;
  from: number;
  to: number;
  net: string;
  at: string[];
}
/** A bare wire down one column in place of a breadboard's rail, soldered at these rows. */
export interface RailWire {
  net: string;
  column: number;
  rows: number[];
}
export interface CarrierWire {
  net: string;
  from: string;
  to: string;
  /** None where an end leaves the board. */
  a: At | null;
  b: At | null;
  insulated: boolean;
}
/** One board to solder: the breadboard's placement, hole by hole, with strips across or without. */
export interface CarrierPlan {
  board: number;
  columns: number;
  rows: number;
  mm: [number, number];
  parts: { ref: string; pins: { pin: string; at: At }[] }[];
  pieces: Piece[];
  /** Holes at which a strip is cut on the copper side. */
  cuts: At[];
  rails: RailWire[];
  wires: CarrierWire[];
  /** What would be open or joined, in sentences: empty when the plan is proven. */
  trouble: string[];
}

/** Columns of the carrier by the breadboard's: the same steps. */
const COLUMN: Record<string, number> = { a: 7, b: 8, c: 9, d: 10, e: 11, f: 14, g: 15, h: 16, i: 17, j: 18 };
/**
 * Where wires to a rail end, and beside it the column of the bare wire that stands for the rail, since a hole takes one lead.
 * Between the rails, and between rail and rows, a hole is left at which a strip can be cut.
 */
const RAIL_END = { "left-": 1, "left+": 4, "right+": 21, "right-": 24 } as const;
const RAIL_WIRE: Record<number, number> = { 1: 2, 4: 5, 21: 20, 24: 23 };
const COLUMNS = 24;

function placeOf(h: Hole, l: Layout): At {
  return h.kind === "row"
    ? { row: h.row, column: COLUMN[h.letter]! }
    : { row: railRow(l.sizes[h.board]!, h.n), column: RAIL_END[`${h.half}${h.pole}`] };
}

const key = (a: At) => `${a.row} ${a.column}`;
const words = (a: At) => `row ${a.row}, column ${a.column}`;

/** A wire over the gap of a broken rail: here the rail is one bare wire. */
function isOverGap(w: Layout["wires"][number], l: Layout): boolean {
  const [a, b] = [w.a.hole, w.b.hole].map((h) => (h === null ? null : readHole(h, l.sizes)));
  return a?.kind === "rail" && b?.kind === "rail" && a.board === b.board && a.half === b.half && a.pole === b.pole;
}

/** Every leg and wire end that stands in a hole of this board, with its net. */
function pointsOf(c: Circuit, l: Layout, board: number): Point[] {
  const { netOf, nets } = boardProblem(c);
  const wired = new Set(nets.flatMap((n) => n.on));
  const out: Point[] = [];
  const put = (hole: string | null, net: string, says: string, isWired: boolean) => {
    const h = hole === null ? null : readHole(hole, l.sizes);
    if (h && h.board === board) out.push({ ...placeOf(h, l), net, says, wired: isWired });
  };
  for (const p of l.parts) {
    for (const h of p.holes) {
      const end = `${p.ref}.${h.pin}`;
      put(h.hole, netOf.get(end) ?? `alone ${end}`, end, wired.has(end));
    }
    for (const hole of p.blind) put(hole, `alone ${p.ref} ${hole}`, `a leg of ${p.ref}`, false);
  }
  for (const w of l.wires) {
    if (isOverGap(w, l)) continue;
    for (const e of [w.a, w.b]) {
      put(e.hole, w.net, e.at, true);
      const at = e.hole === null ? null : readHole(e.hole, l.sizes);
      if (at?.kind === "rail" && at.board === board)
        out.push({
          row: placeOf(at, l).row,
          column: RAIL_WIRE[placeOf(at, l).column]!,
          net: w.net,
          says: `the ${e.at}`,
          wired: true,
        });
    }
  }
  return out;
}

/** Pieces of one row's strip, and where it must be cut: once between any two neighbours of different nets. */
function cutRow(points: readonly Point[]): { pieces: Piece[]; cuts: At[]; stuck: string[] } {
  const sorted = [...points].sort((a, b) => a.column - b.column);
  const pieces: Piece[] = [];
  const cuts: At[] = [];
  const stuck: string[] = [];
  for (const p of sorted) {
    const last = pieces.at(-1);
    if (last && last.net === p.net) {
      last.to = p.column;
      last.at.push(p.says);
      continue;
    }
    if (last) {
      if (p.column - last.to < 2)
        stuck.push(
          `${last.at.at(-1)} and ${p.says} are side by side in row ${p.row}: no hole between them to cut the strip at.`,
        );
      // The hole next to the later one: under a board the cuts stand in one line.
      else cuts.push({ row: p.row, column: p.column - 1 });
    }
    pieces.push({ row: p.row, from: p.column, to: p.column, net: p.net, at: [p.says] });
  }
  return { pieces, cuts, stuck };
}

const railColumns = new Set(Object.values(RAIL_WIRE));

function railsOf(points: readonly Point[]): RailWire[] {
  const out = new Map<string, RailWire>();
  for (const p of points) {
    if (!railColumns.has(p.column)) continue;
    const known = out.get(`${p.column} ${p.net}`) ?? { net: p.net, column: p.column, rows: [] };
    if (!known.rows.includes(p.row)) known.rows.push(p.row);
    out.set(`${p.column} ${p.net}`, known);
  }
  return [...out.values()].map((r) => ({ ...r, rows: r.rows.sort((a, b) => a - b) }));
}

/** Follows copper, rail wires and wires from hole to hole, and tells what is open or joined; knows nothing of how they were laid. */
function prove(plans: readonly Omit<CarrierPlan, "trouble">[], points: readonly Point[][], l: Layout): string[] {
  const u = new Union();
  const node = (board: number, a: At) => `${board} ${key(a)}`;
  for (const p of plans) {
    const cut = new Set(p.cuts.map(key));
    const used = new Set(points[p.board]!.map((x) => x.row));
    // The copper itself: hole to next hole, as far as nobody cut it.
    for (const row of used)
      for (let column = 1; column < p.columns; column++) {
        const [a, b] = [
          { row, column },
          { row, column: column + 1 },
        ];
        if (!cut.has(key(a)) && !cut.has(key(b))) u.join(node(p.board, a), node(p.board, b));
      }
    for (const r of p.rails)
      for (const row of r.rows)
        u.join(node(p.board, { row: r.rows[0]!, column: r.column }), node(p.board, { row, column: r.column }));
  }
  // A strong wire goes to the contact itself; leads meet at the place that they are called by.
  const nodeOf = (net: string, e: Layout["wires"][number]["a"]) => {
    const h = e.hole === null ? null : readHole(e.hole, l.sizes);
    return h ? node(h.board, placeOf(h, l)) : e.isPin ? `pin ${e.at}` : `place ${net} ${e.at}`;
  };
  for (const p of l.parts)
    for (const h of p.holes) {
      const at = readHole(h.hole, l.sizes)!;
      u.join(node(at.board, placeOf(at, l)), `pin ${p.ref}.${h.pin}`);
    }
  for (const w of l.wires) if (!isOverGap(w, l)) u.join(nodeOf(w.net, w.a), nodeOf(w.net, w.b));
  const out: string[] = [];
  const owner = new Map<string, Point>();
  const home = new Map<string, { root: string; says: string }>();
  for (const list of points) {
    const lead = new Map<string, string>();
    for (const p of list) {
      const other = lead.get(key(p));
      if (other) out.push(`${p.says} and ${other} would share the hole at ${words(p)}.`);
      lead.set(key(p), p.says);
    }
  }
  for (const p of plans)
    for (const [i, a] of p.rails.entries())
      for (const b of p.rails.slice(i + 1))
        if (a.column === b.column && a.rows[0]! <= b.rows.at(-1)! && b.rows[0]! <= a.rows.at(-1)!)
          out.push(`The bare wires of ${a.net} and ${b.net} would lie on one another in column ${a.column}.`);
  points.forEach((list, board) =>
    list.forEach((p) => {
      const root = u.find(node(board, p));
      const other = owner.get(root);
      if (other && other.net !== p.net) out.push(`${p.says} and ${other.says} would be joined at ${words(p)}.`);
      owner.set(root, p);
      if (!p.wired) return;
      const known = home.get(p.net);
      if (known && known.root !== root) out.push(`${p.says} and ${known.says} would not be joined.`);
      home.set(p.net, known ?? { root, says: p.says });
    }),
  );
  return [...new Set(out)];
}

/**
 * The breadboard's placement as boards to solder, hole by hole: on stripboard the strips lie across, one a row, cut where the
 * nets differ; on board without strips each piece is a bare wire on the back. Rails are bare wires down a column. Proven by
 * following the copper. Rows are numbered as on the breadboard. Lengths in millimetres.
 */
export function carrierPlans(c: Circuit, l: Layout): CarrierPlan[] {
  const netName = new Map(c.netlist.nets.map((n) => [n.id, n.name]));
  const rows = usedTo(l);
  const points = l.sizes.map((_, board) => pointsOf(c, l, board));
  const stuck: string[] = [];
  const plans = l.sizes.map((_, board) => {
    const mine = points[board]!;
    const last = Math.max(1, Math.min(rows, ...[Math.max(1, ...mine.map((p) => p.row))]));
    const byRow = new Map<number, Point[]>();
    for (const p of mine) byRow.set(p.row, [...(byRow.get(p.row) ?? []), p]);
    const cutRows = [...byRow.entries()].sort(([a], [b]) => a - b).map(([, list]) => cutRow(list));
    stuck.push(...cutRows.flatMap((r) => r.stuck));
    const at = (hole: string | null): At | null => {
      const h = hole === null ? null : readHole(hole, l.sizes);
      return h && h.board === board ? placeOf(h, l) : null;
    };
    const wires = l.wires.flatMap((w): CarrierWire[] => {
      const [a, b] = [at(w.a.hole), at(w.b.hole)];
      if ((!a && !b) || isOverGap(w, l)) return [];
      return [{ net: netName.get(w.net) ?? w.net, from: w.a.at, to: w.b.at, a, b, insulated: true }];
    });
    return {
      board,
      columns: COLUMNS,
      rows: last,
      mm: [Math.round(COLUMNS * PITCH_MM), Math.round(last * PITCH_MM)] as [number, number],
      parts: l.parts.flatMap((p) => {
        const pins = p.holes.flatMap((h) => {
          const there = at(h.hole);
          return there ? [{ pin: h.pin, at: there }] : [];
        });
        return pins.length ? [{ ref: p.ref, pins }] : [];
      }),
      pieces: cutRows.flatMap((r) => r.pieces).map((p) => ({ ...p, net: netName.get(p.net) ?? "" })),
      cuts: cutRows.flatMap((r) => r.cuts),
      rails: railsOf(mine).map((r) => ({ ...r, net: netName.get(r.net) ?? r.net })),
      wires,
    };
  });
  const trouble = [...stuck, ...prove(plans, points, l)];
  return plans
    .map((p) => ({ ...p, trouble: p.board === 0 ? trouble : [] }))
    .filter((p) => p.parts.length || p.wires.length);
}
