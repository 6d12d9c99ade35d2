import type { Circuit } from "../circuit";
import type { Instance, Net } from "../netlist";
import { netColours } from "./colours";

/** Geometry of the loom drawing, in drawing units. The board in the middle, parts at both sides, lanes between. */
export interface LoomPin {
  end: string;
  label: string;
  x: number;
  y: number;
  side: "left" | "right";
  used: boolean;
}
export interface LoomBox {
  ref: string;
  label: string;
  name: string;
  kind: "board" | "part" | "companion" | "supply";
  x: number;
  y: number;
  w: number;
  h: number;
  pins: LoomPin[];
}
export interface LoomNet {
  id: string;
  name: string;
  colour: string;
  /** SVG path data: the lanes and the stubs to each pin. */
  path: string;
  dots: [number, number][];
  tag: [number, number];
  ends: string[];
}
export interface LoomCable {
  from: string;
  to: string;
  path: string;
}
export interface Loom {
  cables: LoomCable[];
  width: number;
  height: number;
  boxes: LoomBox[];
  nets: LoomNet[];
}

const PITCH = 15;
const BOX_W = 140;
const BOARD_W = 160;
const HEAD = 34;
const GAP = 18;
const LANE = 10;
const MARGIN = 24;

type Side = "left" | "right";

const kindOf = (i: Instance): LoomBox["kind"] =>
  i.part.board ? "board" : i.inserted ? "companion" : i.part.id.startsWith("supply/") ? "supply" : "part";

function netsOf(c: Circuit): Map<string, Net> {
  const out = new Map<string, Net>();
  for (const n of c.netlist.nets) for (const e of n.ends) out.set(`${e.ref}.${e.pin}`, n);
  return out;
}

/** Pins that a wire or cable touches, in printed order; other pins of small parts stay drawn but grey. */
function wired(c: Circuit): Set<string> {
  return new Set(c.netlist.wires.flatMap((w) => [`${w.from.ref}.${w.from.pin}`, `${w.to.ref}.${w.to.pin}`]));
}

function boardBox(i: Instance, used: Set<string>, x: number, y: number): LoomBox {
  const of = (side: Side) =>
    i.part.pins
      .filter((p) => p.at && i.part.board!.headers.find((h) => h.id === p.at!.header)?.side === side)
      .sort((a, b) => a.at!.index - b.at!.index);
  const socket = i.part.pins.filter((p) => p.role === "cable");
  const rows = Math.max(of("left").length, of("right").length) + socket.length;
  const pins: LoomPin[] = [];
  const place = (side: Side) => {
    const list = of(side);
    list.forEach((p, k) =>
      pins.push({
        end: `${i.ref}.${p.label}`,
        label: p.label,
        x: side === "left" ? x : x + BOARD_W,
        y: y + HEAD + (k + socket.length) * PITCH,
        side,
        used: used.has(`${i.ref}.${p.label}`),
      }),
    );
  };
  socket.forEach((p, k) =>
    pins.push({
      end: `${i.ref}.${p.label}`,
      label: p.label,
      x,
      y: y + HEAD + k * PITCH,
      side: "left",
      used: used.has(`${i.ref}.${p.label}`),
    }),
  );
  place("left");
  place("right");
  return {
    ref: i.ref,
    label: i.inserted ? "" : i.label,
    name: i.part.name,
    kind: "board",
    x,
    y,
    w: BOARD_W,
    h: HEAD + rows * PITCH,
    pins,
  };
}

function partBox(i: Instance, used: Set<string>, side: Side, x: number, y: number): LoomBox {
  const face: Side = side === "left" ? "right" : "left";
  const list = i.part.pins.length > 8 ? i.part.pins.filter((p) => used.has(`${i.ref}.${p.label}`)) : i.part.pins;
  const pins = list.map((p, k): LoomPin => ({
    end: `${i.ref}.${p.label}`,
    label: p.label,
    x: face === "right" ? x + BOX_W : x,
    y: y + HEAD + k * PITCH,
    side: face,
    used: used.has(`${i.ref}.${p.label}`),
  }));
  return {
    ref: i.ref,
    label: i.inserted ? "" : i.label,
    name: i.part.name,
    kind: kindOf(i),
    x,
    y,
    w: BOX_W,
    h: HEAD + Math.max(1, list.length) * PITCH,
    pins,
  };
}

/** Which side of the board a part's wires mostly go to, and how far down, so that parts stand near their pins. */
function pull(c: Circuit, board: LoomBox, i: Instance, nets: Map<string, Net>): { side: Side; y: number } {
  const home = i.inserted ? (c.netlist.instance(i.inserted.by) ?? i) : i;
  const mine = c.netlist.bindings
    .filter((b) => b.ref === home.ref && b.host === board.ref)
    .map((b) => `${b.host}.${b.hostPin}`);
  const shared = home.part.pins.flatMap((p) => {
    const net = nets.get(`${home.ref}.${p.label}`);
    return net ? board.pins.filter((q) => nets.get(q.end) === net).map((q) => q.end) : [];
  });
  const targets = board.pins.filter((p) => (mine.length ? mine : shared).includes(p.end));
  if (!targets.length) return { side: "left", y: 0 };
  const left = targets.filter((t) => t.side === "left").length;
  return {
    side: left * 2 >= targets.length ? "left" : "right",
    y: targets.reduce((s, t) => s + t.y, 0) / targets.length,
  };
}

/**
 * Lays the loom out: parts in two columns beside the board, ordered by where their wires go; each net one vertical lane
 * in the channel of each side that it visits, joined under the board when it visits both. Deterministic.
 */
export function loom(c: Circuit): Loom {
  const used = wired(c);
  const nets = netsOf(c);
  const all = [...c.netlist.expanded.instances.values()];
  const host = all.find((i) => i.part.board);
  const live = c.netlist.nets.filter((n) => n.ends.filter((e) => used.has(`${e.ref}.${e.pin}`)).length > 1);
  const leftX = MARGIN;
  const draft = host && boardBox(host, used, 0, MARGIN);
  const rest = all
    .filter((i) => i !== host)
    .map((i, k) => ({
      i,
      k,
      ...(draft ? pull(c, draft, i, nets) : { side: (k % 2 ? "right" : "left") as Side, y: k }),
    }));
  // A companion stands right under its part.
  const group = (r: (typeof rest)[number]) => rest.find((x) => x.i.ref === r.i.inserted?.by) ?? r;
  // A channel is as wide as the nets that run in it.
  const sideOf = new Map(rest.map((r) => [r.i.ref, group(r).side]));
  const visits = (n: Net, side: Side) =>
    n.ends.some(
      (e) =>
        used.has(`${e.ref}.${e.pin}`) &&
        (sideOf.get(e.ref) ?? draft?.pins.find((p) => p.end === `${e.ref}.${e.pin}`)?.side) === side,
    );
  const channel = (side: Side) => MARGIN * 1.5 + live.filter((n) => visits(n, side)).length * LANE;
  const boardX = leftX + BOX_W + channel("left");
  const rightX = boardX + (host ? BOARD_W : 0) + channel("right");
  const board = host && boardBox(host, used, boardX, MARGIN);
  const boxes: LoomBox[] = board ? [board] : [];
  let bottom = board ? board.y + board.h : 0;
  for (const side of ["left", "right"] as const) {
    const column = rest
      .filter((r) => group(r).side === side)
      .sort((a, b) => group(a).y - group(b).y || group(a).k - group(b).k || a.k - b.k);
    let y = MARGIN;
    for (const r of column) {
      const box = partBox(r.i, used, side, side === "left" ? leftX : rightX, y);
      boxes.push(box);
      y += box.h + GAP;
    }
    bottom = Math.max(bottom, y);
  }
  const pinAt = new Map(boxes.flatMap((b) => b.pins.map((p) => [p.end, p] as const)));
  const colours = netColours(c.netlist.nets, c.project.houseRules.wireColours);
  const order = [...live].sort((a, b) => {
    const mid = (n: Net) => {
      const ys = n.ends.flatMap((e) => pinAt.get(`${e.ref}.${e.pin}`)?.y ?? []);
      return ys.reduce((s, y) => s + y, 0) / (ys.length || 1);
    };
    return mid(a) - mid(b);
  });
  const out: LoomNet[] = [];
  let under = 0;
  const taken: Record<Side, number> = { left: 0, right: 0 };
  order.forEach((n) => {
    const pins = n.ends.flatMap((e) => {
      const p = pinAt.get(`${e.ref}.${e.pin}`);
      return p && used.has(p.end) ? [p] : [];
    });
    const inLeft = (p: LoomPin) => p.x < boardX + (host ? BOARD_W / 2 : channel("left") / 2);
    const lanes: Record<Side, number> = {
      left: leftX + BOX_W + MARGIN + taken.left * LANE,
      right: rightX - MARGIN - taken.right * LANE,
    };
    const sides: [Side, LoomPin[]][] = [
      ["left", pins.filter(inLeft)],
      ["right", pins.filter((p) => !inLeft(p))],
    ];
    const both = sides.every(([, list]) => list.length);
    const low = bottom + MARGIN + under * LANE;
    if (both) under++;
    const path: string[] = [];
    const dots: [number, number][] = [];
    for (const [side, list] of sides) {
      if (!list.length) continue;
      taken[side]++;
      const x = lanes[side];
      const ys = [...list.map((p) => p.y), ...(both ? [low] : [])];
      path.push(`M${x} ${Math.min(...ys)}V${Math.max(...ys)}`);
      for (const p of list) {
        path.push(`M${p.x} ${p.y}H${x}`);
        if (list.length + (both ? 1 : 0) > 2) dots.push([x, p.y]);
      }
    }
    if (both) path.push(`M${lanes.left} ${low}H${lanes.right}`);
    const first = sides.find(([, list]) => list.length)!;
    const tag: [number, number] = [lanes[first[0]], first[1].reduce((s, p) => s + p.y, 0) / first[1].length];
    out.push({
      id: n.id,
      name: n.name,
      colour: colours.get(n.id)!,
      path: path.join(""),
      dots,
      tag,
      ends: pins.map((p) => p.end),
    });
  });
  const cables = c.netlist.wires.flatMap((w): LoomCable[] => {
    const [a, b] = [pinAt.get(`${w.from.ref}.${w.from.pin}`), pinAt.get(`${w.to.ref}.${w.to.pin}`)];
    if (!w.cable || !a || !b) return [];
    // Over the top of everything: a cable is no wire of the loom.
    const out = (p: LoomPin) => p.x + (p.side === "left" ? -12 : 12);
    return [{ from: a.end, to: b.end, path: `M${a.x} ${a.y}H${out(a)}V${MARGIN / 2}H${out(b)}V${b.y}H${b.x}` }];
  });
  return {
    cables,
    width: rightX + BOX_W + MARGIN,
    height: bottom + MARGIN * 2 + under * LANE,
    boxes,
    nets: out,
  };
}
