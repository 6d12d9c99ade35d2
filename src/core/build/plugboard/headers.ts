import type { Instance } from "../../circuit/netlist";
import { PITCH_MM } from "../breadboard/sizes";
import type { Rect } from "../breadboard/spots";

/**
 * How a board and the board to solder come together. `above`: it stands on the board's sockets. `pins`: it stands on the
 * board's own pins. `below`: the board is plugged into it. `socket`: a bare chip in its socket.
 */
export type Seating = "above" | "pins" | "below" | "socket";
export interface HeaderPin {
  /** None where the plan knows no pin at this position. */
  pin: string | null;
  header: string;
  index: number;
  /** Holes from the upper left pin of all headers that are used. */
  x: number;
  y: number;
}
export interface Header {
  seating: Seating;
  pins: HeaderPin[];
  /** Rows that no hole of a board to solder meets, in words. */
  missing: { header: string; pins: string[]; why: string; end: boolean }[];
  /** Where the board is cut away, so that wires reach sockets below that no hole meets: nothing stands there. */
  cuts: Rect[];
  /** At which end its plug goes in. */
  plugAt: "top" | "bottom";
  /** What the board itself covers, in holes. */
  covers: Rect[];
}

/** Farther beside the grid than this a strip does not go in without bending, millimetres. */
const OFF_GRID_MM = 0.3;
/** Holes beside a double row through which wires come up to its pins. */
export const BESIDE = 2;
const SIDE_BY_SIDE_MM = 2.6;

interface Row {
  header: string;
  pins: { pin: string | null; index: number; x: number; y: number }[];
}

type BoardHeader = NonNullable<Instance["part"]["board"]>["headers"][number];

/** Where the positions of a header are, millimetres: split where the steps are wider; null when the data does not tell. */
function rowsOf(inst: Instance, h: BoardHeader): Row[] | null {
  const board = inst.part.board!;
  const named =
    h.at_mm ?? (board.rowPitch_mm ? { left: [0, 0], right: [board.rowPitch_mm, 0] }[h.side as "left"] : undefined);
  if (!named) return null;
  const [x, from] = named as [number, number];
  const rows: Row[] = [];
  let y = from;
  for (let index = 1; index <= h.count; index++) {
    const gap = h.gaps?.find((g) => g.after === index - 1);
    if (index > 1) y += gap?.mm ?? PITCH_MM;
    if (index === 1 || gap) rows.push({ header: h.id, pins: [] });
    const pin = inst.part.pins.find((p) => p.at?.header === h.id && p.at.index === index)?.label ?? null;
    rows.at(-1)!.pins.push({ pin, index, x, y });
  }
  return rows;
}

const offBy = (mm: number, phase: number) => {
  const d = (((mm - phase) % PITCH_MM) + PITCH_MM) % PITCH_MM;
  return Math.min(d, PITCH_MM - d);
};

/** The grid that meets most of the pins that are wired: its shift along the rows. */
function bestPhase(rows: readonly Row[], wired: ReadonlySet<string>): number {
  const worth = (phase: number) =>
    rows.reduce(
      (s, r) =>
        s +
        (offBy(r.pins[0]!.y, phase) > OFF_GRID_MM
          ? 0
          : r.pins.filter((p) => p.pin && wired.has(p.pin)).length * 100 + r.pins.length),
      0,
    );
  return rows.map((r) => r.pins[0]!.y).reduce((best, y) => (worth(y) > worth(best) ? y : best));
}

function seatingOf(inst: Instance): Seating {
  if (inst.part.id.startsWith("chip/")) return "socket";
  const kind = inst.part.body.header?.kind;
  if (kind === "female") return "above";
  return kind === "male" && inst.part.board!.rowPitch_mm! < SIDE_BY_SIDE_MM ? "pins" : "below";
}

/**
 * The header of a board as holes of a board to solder; `wired` are the labels of its pins that the plan uses. Null when its
 * data tells no places.
 */
export function headerOf(inst: Instance, wired: ReadonlySet<string>): Header | null {
  const { board } = inst.part;
  if (!board) return null;
  const rows: Row[] = [];
  const missing: Header["missing"] = [];
  for (const h of board.headers) {
    const list = rowsOf(inst, h);
    if (list) rows.push(...list);
    else
      missing.push({
        header: h.id,
        pins: inst.part.pins.flatMap((p) => (p.at?.header === h.id ? [p.label] : [])),
        why: `${h.says}: its place beside the other rows is not in the data`,
        end: h.side === "bottom" || h.side === "top",
      });
  }
  if (!rows.length) return null;
  const phase = bestPhase(rows, wired);
  const on = rows.filter((r) => offBy(r.pins[0]!.y, phase) <= OFF_GRID_MM);
  for (const r of rows)
    if (!on.includes(r))
      missing.push({
        header: r.header,
        pins: r.pins.flatMap((p) => p.pin ?? []),
        why: `${offBy(r.pins[0]!.y, phase).toFixed(1)} mm beside the grid of the other rows`,
        end: false,
      });
  const x0 = Math.min(...on.flatMap((r) => r.pins.map((p) => p.x)));
  const y0 = Math.min(...on.flatMap((r) => r.pins.map((p) => p.y)));
  const pins = on.flatMap((r) =>
    r.pins.map((p): HeaderPin => ({
      pin: p.pin,
      header: r.header,
      index: p.index,
      x: Math.round((p.x - x0) / PITCH_MM),
      y: Math.round((p.y - y0) / PITCH_MM),
    })),
  );
  const seating = seatingOf(inst);
  const plugAt = board.countedFrom && seating !== "socket" ? "bottom" : "top";
  const [w, h] = [Math.max(...pins.map((p) => p.x)), Math.max(...pins.map((p) => p.y))];
  if (seating === "below" || seating === "socket") {
    // The outline lies over the rows, the longer side along them.
    const [long, short] = [Math.max(...inst.part.body.mm), Math.min(...inst.part.body.mm)].map(
      (mm) => mm / PITCH_MM,
    ) as [number, number];
    const [along, across] = [Math.max(long, h + 1), Math.max(short, w + 1)];
    return {
      seating,
      pins,
      missing,
      cuts: [],
      plugAt,
      covers: [{ x1: w / 2 - across / 2, x2: w / 2 + across / 2, y1: h / 2 - along / 2, y2: h / 2 + along / 2 }],
    };
  }
  // Only the rows themselves; wires to pins from below come up through holes on each side of them.
  const beside = seating === "pins" ? BESIDE : 0;
  const covers = [...new Set(pins.map((p) => p.x))].map((x) => {
    const ys = pins.filter((p) => p.x === x).map((p) => p.y);
    const [l, r] = [x === 0 ? beside : 0, x === w ? beside : 0];
    return { x1: x - 0.5 - l, x2: x + 0.5 + r, y1: Math.min(...ys) - 0.5, y2: Math.max(...ys) + 0.5 };
  });
  // Sockets beside the grid lie under the board: where they are used, wires must reach them.
  const cuts = rows
    .filter((r) => seating === "above" && !on.includes(r) && r.pins.some((p) => p.pin && wired.has(p.pin)))
    .map((r) => {
      const ys = r.pins.map((p) => (p.y - y0) / PITCH_MM);
      const x = Math.round((r.pins[0]!.x - x0) / PITCH_MM);
      return { x1: x - 1, x2: x + 1, y1: Math.min(...ys) - 1, y2: Math.max(...ys) + 1 };
    })
    // No further than the rows that are used: their strips need the board.
    .map((r) => ({
      ...r,
      y2: Math.min(r.y2, ...pins.filter((p) => p.x > r.x1 && p.x < r.x2 && p.y > r.y1).map((p) => p.y - 0.5)),
    }));
  return { seating, pins, missing, cuts, plugAt, covers: [...covers, ...cuts] };
}
