import type { Circuit } from "../../circuit";
import { PITCH_MM } from "../breadboard/sizes";
import type { Rect } from "../breadboard/spots";
import { wireColour } from "../colours";
import { benchName } from "../names";
import type { At } from "../solder/carrier";
import { BESIDE } from "./headers";
import { placePlug, type Placement } from "./place";
import { itemName, plugHosts, plugProblem, type PlugProblem } from "./problem";
import { provePlug } from "./prove";
import type { PlugBoard, PlugPart, PlugWire } from "./types";
import { treeOf, type Spot } from "./wires";

export * from "./types";
export { plugDrawing } from "./drawing";
export { plugSteps, type PlugStep } from "./steps";

/** Stripped at both ends, and a little slack, millimetres. */
const ENDS_MM = 14;
/** Wires at a joint before others are looked for. */
const AT_A_JOINT = 2;

interface Known {
  place: Placement;
  at(x: number, y: number): At;
  holes: Map<string, At>;
}

function partsOf(c: Circuit, p: PlugProblem, k: Known): PlugPart[] {
  return p.items.map((item) => {
    const put = k.place.put.get(item.ref)!;
    const b = put.shape.body;
    const from = k.at(put.x, put.y);
    const body: Rect = {
      x1: from.column + b.x1,
      x2: from.column + b.x2,
      y1: from.row + b.y1,
      y2: from.row + b.y2,
    };
    const pins = put.shape.holes.map((h) => ({
      pin: h.pin ?? "",
      end: h.pin ? item.endOf(h.pin) : null,
      at: k.at(put.x + h.x, put.y + h.y),
    }));
    return { ref: item.ref, name: itemName(c, item), leads: item.leads, body, pins };
  });
}

/** Holes beside a double row through which wires to its pins come up, each for one wire; the last one again when none is left. */
function besideRow(header: PlugBoard["header"]): (at: At) => At {
  const used = new Map<string, number>();
  return (at) => {
    const right = header.some((h) => h.at.row === at.row && h.at.column < at.column);
    const key = `${at.row} ${at.column}`;
    const n = Math.min(BESIDE, (used.get(key) ?? 0) + 1);
    used.set(key, n);
    return { row: at.row, column: at.column + (right ? n : -n) };
  };
}

function wiresOf(c: Circuit, p: PlugProblem, k: Known, header: PlugBoard["header"]): PlugWire[] {
  const onHeader = new Set(header.flatMap((h) => (h.pin ? [`${p.host.ref}.${h.pin}`] : [])));
  const fromBelow = p.header.seating === "pins";
  const comesUp = besideRow(header);
  return p.groups.flatMap((g) => {
    const spots = g.ends.flatMap((end): Spot[] => {
      const at = k.holes.get(end);
      return at ? [{ end, x: at.column, y: at.row, takes: fromBelow && onHeader.has(end) ? 1 : AT_A_JOINT }] : [];
    });
    return treeOf(spots).map(([from, to]): PlugWire => {
      const [a, b] = [k.holes.get(from.end)!, k.holes.get(to.end)!];
      const up = fromBelow ? (onHeader.has(from.end) ? "a" : onHeader.has(to.end) ? "b" : null) : null;
      const long = Math.hypot(a.row - b.row, a.column - b.column);
      // Only to the very next hole: on a slant it would pass between two others.
      const bare = long < 1.1 && !up && !g.heavy;
      return {
        net: g.name,
        colour: wireColour(c, g.net, from.end, to.end),
        from: from.end,
        to: to.end,
        a,
        b,
        through: up && { at: comesUp(up === "a" ? a : b), end: up },
        bare,
        cut_mm: Math.ceil(long * PITCH_MM + (bare ? 4 : ENDS_MM)),
        heavy: g.heavy ?? null,
      };
    });
  });
}

/** Beyond this a capacitor does little for its pin, holes. */
const TOO_FAR = 12;

function farHelpers(p: PlugProblem, k: Known): string[] {
  return p.items.flatMap((i) => {
    const [a, b] = i.near
      ? [k.holes.get(i.endOf(i.near.leg)), k.holes.get(`${i.near.ref}.${i.near.pin}`)]
      : [undefined, undefined];
    const far = a && b ? Math.hypot(a.row - b.row, a.column - b.column) : 0;
    return far > TOO_FAR
      ? [`${i.ref} would stand ${Math.round(far * PITCH_MM)} mm from ${i.near!.ref}.${i.near!.pin}, which it is for.`]
      : [];
  });
}

const memo = new WeakMap<Circuit, Map<string, PlugBoard | null>>();

function make(c: Circuit, ref: string | undefined): PlugBoard | null {
  const hosts = plugHosts(c);
  const host = ref === undefined ? hosts[0] : hosts.find((h) => h.ref === ref);
  const p = host && plugProblem(c, host);
  if (!host || !p || !p.groups.length) return null;
  const place = placePlug(p);
  const common = {
    host: host.ref,
    hostName: benchName(host),
    seating: p.header.seating,
    missing: p.header.missing,
    direct: p.direct,
    beside: p.beside.flatMap(({ ref: r, why }) => {
      const inst = c.netlist.instance(r);
      return inst ? [{ ref: r, name: benchName(inst), why }] : [];
    }),
  };
  if (!place)
    return {
      ...common,
      columns: 0,
      rows: 0,
      mm: [0, 0],
      header: [],
      covers: [],
      cuts: [],
      parts: [],
      wires: [],
      trouble: [`No board that still fits the header of ${benchName(host)} takes all parts: put some on leads.`],
    };
  const o = place.outline;
  const at = (x: number, y: number): At => ({ row: y - o.y1 + 1, column: x - o.x1 + 1 });
  const wired = new Set(p.groups.flatMap((g) => g.ends));
  const header = p.header.pins.map((h) => ({
    pin: h.pin,
    header: h.header,
    index: h.index,
    at: at(h.x, h.y),
    wired: h.pin !== null && wired.has(`${host.ref}.${h.pin}`),
  }));
  const k: Known = { place, at, holes: new Map() };
  for (const h of header) if (h.pin) k.holes.set(`${host.ref}.${h.pin}`, h.at);
  const parts = partsOf(c, p, k);
  for (const x of parts) for (const pin of x.pins) if (pin.end) k.holes.set(pin.end, pin.at);
  const [columns, rows] = [o.x2 - o.x1 + 1, o.y2 - o.y1 + 1];
  const zero = at(0, 0);
  const onBoard = (r: Rect): Rect => ({
    x1: r.x1 + zero.column,
    x2: r.x2 + zero.column,
    y1: r.y1 + zero.row,
    y2: r.y2 + zero.row,
  });
  const board: Omit<PlugBoard, "trouble"> = {
    ...common,
    columns,
    rows,
    mm: [Math.round(columns * PITCH_MM), Math.round(rows * PITCH_MM)],
    header,
    covers: p.header.seating === "above" || p.header.seating === "pins" ? [] : p.header.covers.map(onBoard),
    cuts: p.header.cuts.map(onBoard),
    parts,
    wires: wiresOf(c, p, k, header),
  };
  return { ...board, trouble: [...provePlug(board, p.groups), ...farHelpers(p, k)] };
}

/**
 * The circuit as a board that plugs onto the header of one of its boards (the one with most wires, or `host`): every hole, every
 * wire on its back, and the proof that they join what the plan joins. Null when no board's data tells where its header is, or
 * nothing is wired to it yet. The same circuit gives the same board.
 */
export function plugBoard(c: Circuit, host?: string): PlugBoard | null {
  let known = memo.get(c);
  if (!known) memo.set(c, (known = new Map()));
  const key = host ?? "";
  if (!known.has(key)) known.set(key, make(c, host));
  return known.get(key)!;
}

/** Boards and bare chips that a board can plug onto: reference and name. */
export const plugHostNames = (c: Circuit): { ref: string; name: string }[] =>
  plugHosts(c).map((i) => ({ ref: i.ref, name: benchName(i) }));
