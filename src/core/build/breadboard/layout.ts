import type { Heavy } from "../runsheet/types";
import type { BoardNet, BoardProblem } from "./problem";
import { seat, type Rect, type Spots } from "./spots";
import {
  holeAt,
  holeName,
  LETTERS,
  railRow,
  readHole,
  SIZES,
  PITCH_MM,
  type Half,
  type Hole,
  type Pole,
  type SizeId,
} from "./sizes";

/** One end of a wire on the breadboards: which pin or place it stands for, and the hole, when it goes into one. */
export interface BoardEnd {
  /** `REF.PIN`, or the name of a rail or free row. */
  at: string;
  isPin: boolean;
  hole: string | null;
}
export interface BoardWire {
  net: string;
  kind: "jumper" | "lead" | "bridge";
  a: BoardEnd;
  b: BoardEnd;
  /** Between the two holes; 0 for a lead from a part beside the board. */
  apart_mm: number;
  heavy?: Heavy;
}
export interface PlacedPart {
  ref: string;
  holes: { pin: string; hole: string }[];
  /** Legs that take a hole without being pins of the plan. */
  blind: string[];
  body: Rect | null;
  /** Lies on two bending legs. */
  lying: boolean;
}
export interface Trouble {
  /**
   * `joins`: the breadboard would join two nets; `apart`: pins of one net are not joined; `room`: something has no hole; `open`:
   * a part has no place yet.
   */
  kind: "joins" | "apart" | "room" | "open";
  says: string;
  at: string[];
}
export interface Layout {
  sizes: SizeId[];
  /** Rails of the large boards are broken in the middle. */
  split: boolean;
  spots: Spots;
  parts: PlacedPart[];
  beside: { ref: string; why: string }[];
  rails: { net: string; name: string; half: Half; pole: Pole }[];
  wires: BoardWire[];
  /** Pins that a row of the breadboard joins by itself. */
  joined: { net: string; a: BoardEnd; b: BoardEnd }[];
  /** What does not work: rows of two nets, full rows, parts on one another or without room. */
  trouble: Trouble[];
  jumpers: number;
  wire_mm: number;
}

interface Row {
  board: number;
  half: Half;
  row: number;
  net: string | null;
  pins: { end: string; hole: Hole }[];
  free: string[];
}

const key = (board: number, half: Half, row: number) => `${board} ${half} ${row}`;
/** Which column a wire takes first that goes out to a rail, or across. */
const OUT: Record<Half, string> = { left: "abcde", right: "jihgf" };
const IN: Record<Half, string> = { left: "edcba", right: "fghij" };

/** Rows with their pins and free holes, from where the parts are. */
function fill(p: BoardProblem, sizes: SizeId[], spots: Spots) {
  const rows = new Map<string, Row>();
  const parts: PlacedPart[] = [];
  const trouble: Trouble[] = [];
  const lacks = (says: string, ...at: string[]) => trouble.push({ kind: "room", says, at });
  const nameOf = new Map(p.nets.map((n) => [n.id, n.name]));
  const rowAt = (board: number, half: Half, row: number): Row => {
    const k = key(board, half, row);
    const known = rows.get(k) ?? { board, half, row, net: null, pins: [], free: [...LETTERS[half]] };
    rows.set(k, known);
    return known;
  };
  const seated = p.items.flatMap((item) => {
    const spot = spots[item.ref];
    if (!spot) return [];
    const at = seat(item, spot, sizes);
    if (at) return [{ item, spot, at }];
    lacks(`${item.ref} would stand outside the breadboard there.`, item.ref);
    return [];
  });
  // Bodies first: the holes under them are gone for everything else.
  for (const { spot, at } of seated)
    for (const cell of at.cells) {
      const r = rowAt(spot.board, cell.half, cell.row);
      r.free = r.free.filter((l) => cell.alone || !at.covers[cell.half].includes(l));
    }
  for (const { item, spot, at } of seated) {
    const part: PlacedPart = {
      ref: item.ref,
      holes: [],
      blind: [],
      body: at.body,
      lying: item.print.kind === "bridge",
    };
    for (const cell of at.cells) {
      const r = rowAt(spot.board, cell.half, cell.row);
      const { letter } = cell;
      if (!r.free.includes(letter)) {
        lacks(
          `Hole ${letter}${cell.row} is taken or covered: no room for ${item.ref}${cell.pin ? `.${cell.pin}` : ""}.`,
          item.ref,
        );
        continue;
      }
      r.free = r.free.filter((l) => l !== letter);
      if (cell.covered) continue;
      const hole: Hole = { kind: "row", board: spot.board, letter, row: cell.row };
      if (cell.pin === null) part.blind.push(holeName(hole));
      else part.holes.push({ pin: cell.pin, hole: holeName(hole) });
      const end = cell.pin === null ? `${item.ref} (leg)` : `${item.ref}.${cell.pin}`;
      const net = (cell.pin && p.netOf.get(end)) || `alone ${end}`;
      if (r.net !== null && r.net !== net) {
        const other = r.pins[0]!.end;
        const says = (e: string) =>
          `${e}${nameOf.get(p.netOf.get(e) ?? "") ? ` (${nameOf.get(p.netOf.get(e)!)})` : ""}`;
        trouble.push({
          kind: "joins",
          says: `${says(end)} and ${says(other)} stand in one row, ${holeName(hole)}: the row joins them.`,
          at: [end, other],
        });
      }
      r.net ??= net;
      r.pins.push({ end, hole });
    }
    parts.push(part);
  }
  for (const [i, a] of seated.entries())
    for (const b of seated.slice(i + 1)) {
      const [x, y] = [a.at.body, b.at.body];
      if (x && y && x.x1 < y.x2 && y.x1 < x.x2 && x.y1 < y.y2 && y.y1 < x.y2)
        lacks(`${a.item.ref} and ${b.item.ref} are in each other's way.`, a.item.ref, b.item.ref);
    }
  return { rows, rowAt, parts, trouble, lacks, seated };
}

type RailHole = Extract<Hole, { kind: "rail" }>;

/** Holes of the rails that no body lies on, nearest to a row first. A wire leaves the last hole of each piece to a bridge. */
function railPicker(sizes: SizeId[], bodies: (Rect | null)[], split: boolean) {
  const used = new Set<string>();
  /** Holes that no body lies on, by board, half and pole: bodies do not move. */
  const bare = new Map<string, RailHole[]>();
  const bareOf = (board: number, half: Half, pole: Pole): RailHole[] => {
    const key = `${board} ${half} ${pole}`;
    const known = bare.get(key);
    if (known) return known;
    const list = Array.from({ length: SIZES[sizes[board]!].railHoles }, (_, i): RailHole => ({
      kind: "rail",
      board,
      half,
      pole,
      n: i + 1,
    }));
    const open = list.filter((h) => {
      const { x, y } = holeAt(h, sizes[board]!);
      return !bodies.some((b) => b && x > b.x1 && x < b.x2 && y > b.y1 && y < b.y2);
    });
    bare.set(key, open);
    return open;
  };
  const free = (board: number, half: Half, pole: Pole): RailHole[] =>
    bareOf(board, half, pole).filter((h) => !used.has(holeName(h)));
  return {
    /** Free holes of one piece of a rail. */
    of: (p: RailPiece) => free(p.board, p.half, p.pole).filter((h) => pieceOf(sizes, h, split) === p.piece),
    use: (h: RailHole) => void used.add(holeName(h)),
    pick(board: number, half: Half, pole: Pole, near: number): RailHole | null {
      const all = free(board, half, pole);
      const left = new Map<number, number>();
      for (const h of all) left.set(pieceOf(sizes, h, split), (left.get(pieceOf(sizes, h, split)) ?? 0) + 1);
      const away = (h: RailHole) => Math.abs(railRow(sizes[board]!, h.n) - near);
      const best = all.filter((h) => left.get(pieceOf(sizes, h, split))! > 1).sort((a, b) => away(a) - away(b))[0];
      if (!best) return null;
      used.add(holeName(best));
      return best;
    },
  };
}

/** One piece of metal of a rail: such boards may have their rails broken in the middle. */
interface RailPiece {
  board: number;
  half: Half;
  pole: Pole;
  piece: number;
}
const pieceOf = (sizes: SizeId[], h: RailHole, split: boolean): number =>
  split && sizes[h.board] === "830" && h.n > SIZES["830"].railHoles / 2 ? 1 : 0;

const mm = (sizes: SizeId[], a: Hole, b: Hole) => {
  const [p, q] = [holeAt(a, sizes[a.board]!), holeAt(b, sizes[b.board]!)];
  return Math.round(Math.hypot(p.x - q.x, p.y - q.y) * PITCH_MM * 10) / 10;
};

/**
 * From places to holes: which hole each pin takes, which wires are still needed from hole to hole, what rows join by
 * themselves, which rail carries what, and what does not work, in sentences. `split`: rails may be broken in the middle.
 */
export function layoutOf(p: BoardProblem, sizes: SizeId[], spots: Spots, split = true): Layout {
  const { rows, rowAt, parts, trouble, lacks, seated } = fill(p, sizes, spots);
  const hasRails = sizes.some((x) => SIZES[x].railHoles > 0);
  const holes = railPicker(
    sizes,
    seated.map((s) => s.at.body),
    split,
  );
  const wires: BoardWire[] = [];
  const joined: Layout["joined"] = [];
  const rails: Layout["rails"] = [];
  const usedRails = new Map<string, { net: BoardNet; at: RailPiece }>();

  const take = (r: Row, prefer: string): Hole | null => {
    const letter = [...prefer].find((l) => r.free.includes(l));
    if (!letter) return null;
    r.free = r.free.filter((l) => l !== letter);
    return { kind: "row", board: r.board, letter, row: r.row };
  };
  const full = (r: Row, net: string) =>
    lacks(
      `Row ${r.row} (${LETTERS[r.half][0]} to ${LETTERS[r.half].at(-1)}) is full: no hole left for a wire of ${net}.`,
    );
  const pinEnd = (end: string, hole: Hole | null): BoardEnd => ({ at: end, isPin: true, hole: hole && holeName(hole) });
  const placeEnd = (at: string, hole: Hole): BoardEnd => ({ at, isPin: false, hole: holeName(hole) });
  const wire = (net: string, kind: BoardWire["kind"], a: BoardEnd, b: BoardEnd, holes: [Hole | null, Hole | null]) =>
    wires.push({ net, kind, a, b, apart_mm: holes[0] && holes[1] ? mm(sizes, holes[0], holes[1]) : 0 });

  /** Rows in which a net's wired pins stand; further pins of a row are joined by it. */
  const byNet = new Map<string, Row[]>();
  for (const r of rows.values()) if (r.net !== null) byNet.set(r.net, [...(byNet.get(r.net) ?? []), r]);
  const rowsOf = (n: BoardNet): { row: Row; end: string }[] => {
    const on = new Set(n.on);
    return (byNet.get(n.id) ?? []).flatMap((r) => {
      const mine = r.pins.filter((x) => on.has(x.end));
      const [first, ...more] = mine;
      if (!first) return [];
      for (const m of more) joined.push({ net: n.id, a: pinEnd(m.end, m.hole), b: pinEnd(first.end, first.hole) });
      return [{ row: r, end: first.end }];
    });
  };
  const offEnds = (n: BoardNet) => [...n.off, ...n.on.filter((e) => !spots[e.slice(0, e.indexOf("."))])];

  for (const n of p.nets) {
    const on = rowsOf(n);
    const off = offEnds(n);
    if (n.strip) {
      const { name, feeds } = n.strip;
      const hub: BoardEnd = { at: name, isPin: false, hole: null };
      const fed = new Set<string>();
      const lead = (end: string, hole: Hole | null) => {
        const ref = end.slice(0, end.indexOf("."));
        const heavy = fed.has(ref) ? undefined : feeds.get(ref);
        fed.add(ref);
        // A strong wire goes to the part itself: no spring of the breadboard carries it.
        wires.push({
          net: n.id,
          kind: "lead",
          a: pinEnd(end, heavy ? null : hole),
          b: hub,
          apart_mm: 0,
          ...(heavy && { heavy }),
        });
      };
      for (const { row, end } of on) {
        const hole = take(row, OUT[row.half]);
        if (hole) lead(end, hole);
        else full(row, n.name);
      }
      for (const e of off) lead(e, null);
      continue;
    }
    if (n.rail && hasRails) {
      const { pole, halves } = n.rail;
      const name = `${n.name} rail (${pole === "-" ? "−" : "+"})`;
      const railHole = (board: number, half: Half, near: number) => {
        // The rail beside the row; where bodies cover it, the other side's, then those of the other boards.
        const places = sizes
          .flatMap((size, b) => (SIZES[size].railHoles ? halves.map((h) => ({ b, h })) : []))
          .sort((x, y) => Math.abs(x.b - board) - Math.abs(y.b - board) || Number(x.h !== half) - Number(y.h !== half));
        let hole: RailHole | null = null;
        for (const { b, h } of places) if (!hole) hole = holes.pick(b, h, pole, near);
        if (!hole) lacks(`No hole of the ${half} ${pole === "-" ? "minus" : "plus"} rail is free for ${n.name}.`);
        else {
          const at: RailPiece = { board: hole.board, half: hole.half, pole, piece: pieceOf(sizes, hole, split) };
          usedRails.set(`${n.id} ${at.board} ${at.half} ${at.piece}`, { net: n, at });
        }
        return hole;
      };
      // A small board without rails uses those of its neighbour.
      const railBoard = (b: number) =>
        SIZES[sizes[b]!].railHoles ? b : sizes.findIndex((x) => SIZES[x].railHoles > 0);
      for (const { row, end } of on) {
        const half = halves.includes(row.half) ? row.half : halves[0]!;
        const from = take(row, half === row.half ? OUT[row.half] : IN[row.half]);
        if (!from) {
          full(row, n.name);
          continue;
        }
        const to = railHole(railBoard(row.board), half, row.row);
        if (to) wire(n.id, "jumper", pinEnd(end, from), placeEnd(name, to), [from, to]);
      }
      for (const e of off) {
        const to = railHole(railBoard(0), halves[0]!, 1);
        if (to) wire(n.id, "lead", pinEnd(e, null), placeEnd(name, to), [null, to]);
      }
      continue;
    }
    if (!on.length) {
      if (off.length === 2) wire(n.id, "lead", pinEnd(off[0]!, null), pinEnd(off[1]!, null), [null, null]);
      if (off.length < 3) continue;
      // Only leads meet: they need a row of their own.
      const spare = freeRow(sizes, rows, rowAt);
      if (!spare) {
        lacks(`No free row is left in which the leads of ${n.name} could meet.`);
        continue;
      }
      spare.net = n.id;
      for (const e of off) {
        const hole = take(spare, OUT[spare.half]);
        if (hole) wire(n.id, "lead", pinEnd(e, null), placeEnd(`${n.name} row`, hole), [null, hole]);
        else full(spare, n.name);
      }
      continue;
    }
    // A shortest tree over the rows, as far as their free holes allow; leads from beside the board end in its rows, too.
    const ends: { row: Row; end: BoardEnd["at"]; isPin: boolean }[] = [{ ...on[0]!, isPin: true }];
    const left = on.slice(1);
    const freeIn = (list: readonly { row: Row }[]) => list.reduce((sum, x) => sum + x.row.free.length, 0);
    const endAt = (x: (typeof ends)[number], hole: Hole) => (x.isPin ? pinEnd(x.end, hole) : placeEnd(x.end, hole));
    /** A full net goes on in a free row, over the hole of its last wire. */
    const goOn = (): boolean => {
      const last = [...wires].reverse().find((w) => w.net === n.id && w.b.hole);
      const spare = last && freeRow(sizes, rows, rowAt);
      const out = last && readHole(last.b.hole!, sizes);
      if (!last || !spare || !out) return false;
      spare.net = n.id;
      const place = `${n.name} row`;
      const [to, moved] = [take(spare, OUT[spare.half])!, take(spare, OUT[spare.half])!];
      wire(n.id, "jumper", { ...last.b }, placeEnd(place, to), [out, to]);
      last.b = placeEnd(place, moved);
      const near = last.a.hole && readHole(last.a.hole, sizes);
      if (near) last.apart_mm = mm(sizes, near, moved);
      ends.push({ row: spare, end: place, isPin: false });
      return true;
    };
    while (left.length) {
      // Two rows with a hole each would be shut off once they are joined: somebody must be left to go on from.
      const goesOn = (b: (typeof on)[number]) => left.length < 2 || freeIn(ends) + b.row.free.length > 2;
      let best: { a: (typeof ends)[number]; b: (typeof on)[number]; d: number } | undefined;
      for (const a of ends)
        for (const b of left) {
          if (!a.row.free.length || !b.row.free.length || !goesOn(b)) continue;
          const across = a.row.half === b.row.half ? 0 : 4;
          const d = Math.abs(a.row.row - b.row.row) + across + Math.abs(a.row.board - b.row.board) * 24;
          if (!best || d < best.d) best = { a, b, d };
        }
      if (!best) {
        if (freeIn(left) && goOn()) continue;
        full(left[0]!.row.free.length ? ends[0]!.row : left[0]!.row, n.name);
        break;
      }
      const { a, b } = best;
      const same = a.row.half === b.row.half && a.row.board === b.row.board;
      const both = [...OUT[a.row.half]].find((l) => a.row.free.includes(l) && b.row.free.includes(l));
      const from = take(a.row, same ? (both ?? OUT[a.row.half]) : IN[a.row.half])!;
      const to = take(b.row, same ? (both ?? OUT[b.row.half]) : IN[b.row.half])!;
      wire(n.id, "jumper", endAt(a, from), pinEnd(b.end, to), [from, to]);
      ends.push({ ...b, isPin: true });
      left.splice(left.indexOf(b), 1);
    }
    for (const e of off) {
      const roomiest = () => [...ends].sort((x, y) => y.row.free.length - x.row.free.length)[0]!;
      if (!roomiest().row.free.length && !goOn()) {
        full(roomiest().row, n.name);
        continue;
      }
      const at = roomiest();
      const hole = take(at.row, OUT[at.row.half])!;
      wire(n.id, "lead", pinEnd(e, null), endAt(at, hole), [null, hole]);
    }
  }
  for (const { net, at } of usedRails.values())
    if (!rails.some((r) => r.net === net.id && r.half === at.half))
      rails.push({ net: net.id, name: net.name, half: at.half, pole: at.pole });
  const bodies = seated.flatMap((s) => s.at.body ?? []);
  bridges(sizes, usedRails, holes, wires, lacks, usedTo({ sizes, parts, wires }), bodies);
  for (const i of p.items)
    if (!spots[i.ref])
      trouble.push({ kind: "open", says: `${i.ref} has no place on the breadboard yet.`, at: [i.ref] });
  const laid = wires.filter((w) => w.kind !== "lead");
  return {
    sizes,
    split,
    spots,
    parts,
    beside: p.beside,
    rails,
    wires,
    joined,
    trouble,
    jumpers: laid.length,
    wire_mm: Math.round(laid.reduce((s, w) => s + w.apart_mm, 0)),
  };
}

/** The last row that a part stands in, its body covers, or a wire leads to. */
export function usedTo(l: Pick<Layout, "sizes" | "parts" | "wires">): number {
  const rows = l.wires.flatMap((w) =>
    [w.a.hole, w.b.hole].flatMap((h) => {
      const hole = h && readHole(h, l.sizes);
      return hole ? [holeAt(hole, l.sizes[hole.board]!).y] : [];
    }),
  );
  return Math.ceil(Math.max(1, ...rows, ...l.parts.flatMap((p) => (p.body ? [p.body.y2] : []))));
}

function freeRow(sizes: SizeId[], rows: Map<string, Row>, rowAt: (b: number, h: Half, r: number) => Row): Row | null {
  for (const [board, size] of sizes.entries())
    for (let row = SIZES[size].rows; row >= 1; row--)
      for (const half of ["left", "right"] as const)
        if (!rows.has(key(board, half, row))) return rowAt(board, half, row);
  return null;
}

/** A way round a body is worth so much wire, millimetres. */
const OVER_MM = 60;

/** Whether the straight way between two holes leads over a body. */
function crosses(p: { x: number; y: number }, q: { x: number; y: number }, body: Rect): boolean {
  if (Math.max(p.x, q.x) <= body.x1 || Math.min(p.x, q.x) >= body.x2) return false;
  if (Math.max(p.y, q.y) <= body.y1 || Math.min(p.y, q.y) >= body.y2) return false;
  const steps = 16;
  for (let k = 1; k < steps; k++) {
    const [x, y] = [p.x + ((q.x - p.x) * k) / steps, p.y + ((q.y - p.y) * k) / steps];
    if (x > body.x1 && x < body.x2 && y > body.y1 && y < body.y2) return true;
  }
  return false;
}

/** Whether two pieces are the two halves of one broken rail. */
const broken = (a: RailPiece, b: RailPiece) => a.board === b.board && a.half === b.half && a.piece !== b.piece;

/**
 * All pieces of rails that carry one net are joined, by as few and short wires as there are free holes for: over the gap in the
 * middle, left with right, board with board.
 */
function bridges(
  sizes: SizeId[],
  used: Map<string, { net: BoardNet; at: RailPiece }>,
  holes: ReturnType<typeof railPicker>,
  wires: BoardWire[],
  lacks: (says: string) => void,
  last: number,
  bodies: readonly Rect[],
): void {
  const byNet = new Map<string, { net: BoardNet; at: RailPiece }[]>();
  for (const u of used.values()) byNet.set(u.net.id, [...(byNet.get(u.net.id) ?? []), u]);
  for (const [k, list] of [...byNet.values()].entries()) {
    const { net } = list[0]!;
    const name = `${net.name} rail (${net.rail!.pole === "-" ? "−" : "+"})`;
    const inside = [list[0]!.at];
    const left = list.slice(1).map((x) => x.at);
    /** The best pair of free holes between two pieces; side by side where the rail is broken, else below the parts. */
    const between = (a: RailPiece, b: RailPiece) => {
      const gap = broken(a, b);
      // Below everything, each net's wire a little lower than the last one's, so that they can be told apart.
      const end = Math.min(SIZES[sizes[a.board]!].rows, last + 2 + 2 * k);
      const placed = (list: RailHole[]) =>
        list.map((h) => ({ h, ...holeAt(h, sizes[h.board]!), row: railRow(sizes[h.board]!, h.n) }));
      const [here, there] = [placed(holes.of(a)), placed(holes.of(b))];
      /** Straight across first: a slanting wire is only for rails without two free holes side by side. */
      const search = (slant: number) => {
        let best: { a: RailHole; b: RailHole; cost: number } | undefined;
        for (const p of here)
          for (const q of there) {
            const level = Math.abs(p.row - q.row);
            if (level > slant) continue;
            const far = gap ? 0 : Math.abs(p.row - end) / 100;
            let cost = Math.hypot(p.x - q.x, p.y - q.y) * PITCH_MM + level + far;
            if (best && cost >= best.cost) continue;
            if (!gap && bodies.some((b) => crosses(p, q, b))) cost += OVER_MM;
            if (!best || cost < best.cost) best = { a: p.h, b: q.h, cost };
          }
        return best;
      };
      const best = search(gap ? 12 : 2) ?? search(Infinity);
      return best;
    };
    while (left.length) {
      let best: { a: RailHole; b: RailHole; cost: number; to: RailPiece } | undefined;
      for (const a of inside)
        for (const b of left) {
          const found = between(a, b);
          if (found && found.cost < (best?.cost ?? Infinity)) best = { ...found, to: b };
        }
      if (!best) {
        lacks(`No two free holes are left to join the pieces of the ${name}.`);
        break;
      }
      const point = (h: RailHole): BoardEnd => ({ at: name, isPin: false, hole: holeName(h) });
      holes.use(best.a);
      holes.use(best.b);
      wires.push({
        net: net.id,
        kind: "bridge",
        a: point(best.a),
        b: point(best.b),
        apart_mm: mm(sizes, best.a, best.b),
      });
      inside.push(best.to);
      left.splice(left.indexOf(best.to), 1);
    }
  }
}
