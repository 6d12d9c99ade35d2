import type { ElkExtendedEdge, ElkNode } from "elkjs/lib/elk-api";
import type { Circuit } from "../../circuit";
import type { Instance } from "../../circuit/netlist";
import { coloursOf, wireColour } from "../colours";
import { laidByRule } from "../runsheet/laid";
import { nameOf } from "../runsheet/sharing";
import { boxOf, isInline } from "./boxes";
import type { LoomBox, LoomTag, Side } from "./types";

/** A wire of the drawing: between two pins, for one net. */
interface Line {
  net: string;
  a: string;
  b: string;
}
/** Everything of a drawing but where things are: boxes at the origin, and the graph that the layout works on. */
export interface LoomGraph {
  boxes: LoomBox[];
  /** Room beside each box for the names at its pins. */
  gutters: Record<string, Record<Side, number>>;
  tags: (Omit<LoomTag, "x" | "y"> & { ref: string })[];
  lines: (Line & { colour: string })[];
  nets: { id: string; name: string; colour: string; ends: string[] }[];
  cables: { from: string; to: string }[];
  elk: ElkNode;
}

/** Widths of the mono type at the tag's size, and what a flag adds. */
const CHAR = 5.45;
const TAG_PAD = 10;
const FLAG_PAD = 22;
const TAG_MOST = 26;
const clip = (t: string) => (t.length > TAG_MOST ? `${t.slice(0, TAG_MOST - 1)}…` : t);

const refOf = (end: string) => end.slice(0, end.indexOf("."));
const sign = (s: Side) => (s === "left" ? -1 : 1);

/** Rails and splices of supplies and grounds are named at each pin; every other wire is drawn. */
function drawn(c: Circuit): { lines: Line[]; flags: Map<string, { net: string; hub: string }> } {
  const lines: Line[] = [];
  const flags = new Map<string, { net: string; hub: string }>();
  for (const { net, stretches } of laidByRule(c)) {
    const shared = net.kind === "supply" || net.kind === "ground";
    const meeting = new Map<string, string[]>();
    for (const s of stretches) {
      const [pins, hubs] = [
        [s.a, s.b].filter((p) => typeof p !== "string"),
        [s.a, s.b].filter((p) => typeof p === "string"),
      ];
      if (pins.length === 2) lines.push({ net: net.id, a: nameOf(s.a), b: nameOf(s.b) });
      else if (pins.length === 1 && shared) {
        // A contact that holds two wires has both places on its flag.
        const [end, hub] = [nameOf(pins[0]!), hubs[0] as string];
        const known = flags.get(end)?.hub;
        flags.set(end, { net: net.id, hub: known ? `${known}, ${hub.replace(`${net.name} `, "")}` : hub });
      }
      // Rows that carry on in a further row are one place in the drawing.
      else if (pins.length === 1) meeting.set(net.id, [...(meeting.get(net.id) ?? []), nameOf(pins[0]!)]);
    }
    for (const ends of meeting.values()) {
      const isHost = (e: string) => c.netlist.instance(refOf(e))?.part.board !== undefined;
      const hub = ends.find(isHost) ?? ends[0]!;
      for (const e of ends) if (e !== hub) lines.push({ net: net.id, a: hub, b: e });
    }
  }
  return { lines, flags };
}

/** Where boxes were put by hand: beside which side of the board, and how far down. */
export type HandPlaces = Readonly<Record<string, { side: Side; y: number }>>;

interface Place {
  side: Side;
  depth: number;
  /** The pin that faces the board. */
  near?: string;
}

/** Where each part stands: on which side of the board, how many wires away from it, and with which pin towards it. */
function places(c: Circuit, board: LoomBox | undefined, lines: Line[]): Map<string, Place> {
  const out = new Map<string, Place>();
  const all = [...c.netlist.expanded.instances.values()];
  if (!board) {
    all.forEach((i, k) => out.set(i.ref, { side: k % 2 ? "right" : "left", depth: 1 }));
    return out;
  }
  const sideOf = new Map(board.pins.map((p) => [p.end, p.side]));
  const near = new Map<string, { mine: string; other: string }[]>();
  for (const l of lines)
    for (const [mine, other] of [
      [l.a, l.b],
      [l.b, l.a],
    ] as const)
      near.set(refOf(mine), [...(near.get(refOf(mine)) ?? []), { mine, other }]);
  let front = [board.ref];
  const votes = new Map<string, { left: number; right: number }>();
  for (let depth = 1; front.length; depth++) {
    const next = new Map<string, string>();
    for (const ref of front)
      for (const { mine, other } of near.get(ref) ?? []) {
        const at = refOf(other);
        if (at === board.ref || out.has(at)) continue;
        const side = ref === board.ref ? (sideOf.get(mine) ?? "left") : out.get(ref)!.side;
        const v = votes.get(at) ?? { left: 0, right: 0 };
        v[side]++;
        votes.set(at, v);
        if (!next.has(at)) next.set(at, other);
      }
    for (const [ref, pin] of next) {
      const v = votes.get(ref)!;
      out.set(ref, { side: v.left >= v.right ? "left" : "right", depth, near: pin });
    }
    front = [...next.keys()];
  }
  // What only hangs on rails: a companion beside its part, everything else where there is less.
  for (const i of all) {
    if (out.has(i.ref) || i.ref === board.ref) continue;
    const parent = i.inserted && out.get(i.inserted.by);
    const left = [...out.values()].filter((p) => p.side === "left").length;
    out.set(
      i.ref,
      parent ? { side: parent.side, depth: parent.depth } : { side: left * 2 <= out.size ? "left" : "right", depth: 1 },
    );
  }
  return out;
}

/** Where the first leg of a box must be so that the right pin faces the board. */
function faceOf(i: Instance, p: Place): Side {
  const towards: Side = p.side === "left" ? "right" : "left";
  if (!isInline(i)) return towards;
  const first = `${i.ref}.${i.part.pins[0]!.label}`;
  return !p.near || p.near === first ? towards : p.side;
}

const LEVEL = -3;
const ABOVE = 2.5;

/** Rails hang at pins as flags; a wire's net is named where it leaves a module. */
function tagsOf(
  c: Circuit,
  boxes: LoomBox[],
  flags: Map<string, { net: string; hub: string }>,
  lines: Line[],
  colours: Map<string, string>,
): LoomGraph["tags"] {
  const names = new Map(c.netlist.nets.map((n) => [n.id, n.name]));
  const wires = new Map(lines.flatMap((l) => [[l.a, l.net] as const, [l.b, l.net] as const]));
  return boxes.flatMap((b) =>
    b.pins.flatMap((p): LoomGraph["tags"] => {
      const flag = flags.get(p.end);
      const net = flag?.net ?? wires.get(p.end);
      if (!net) return [];
      if (!flag && (b.kind === "board" || b.inline)) return [];
      const text = clip(flag ? flag.hub : names.get(net)!);
      return [
        {
          ref: b.ref,
          end: p.end,
          net,
          text,
          side: p.side,
          width: text.length * CHAR + (flag ? FLAG_PAD : TAG_PAD),
          flag: flag !== undefined,
          rise: flag && !wires.has(p.end) ? LEVEL : ABOVE,
          colour: flag ? wireColour(c, net, p.end, flag.hub) : colours.get(net)!,
        },
      ];
    }),
  );
}

const OPTIONS: Record<string, string> = {
  "elk.algorithm": "layered",
  "elk.direction": "RIGHT",
  "elk.edgeRouting": "ORTHOGONAL",
  "elk.partitioning.activate": "true",
  "elk.separateConnectedComponents": "false",
  "elk.spacing.nodeNode": "18",
  "elk.spacing.edgeNode": "10",
  "elk.spacing.edgeEdge": "9",
  "elk.layered.spacing.nodeNodeBetweenLayers": "26",
  "elk.layered.spacing.edgeNodeBetweenLayers": "12",
  "elk.layered.spacing.edgeEdgeBetweenLayers": "9",
  "elk.layered.nodePlacement.strategy": "NETWORK_SIMPLEX",
  "elk.layered.thoroughness": "10",
  "elk.padding": "[top=34,left=20,bottom=20,right=20]",
};
/** Keeps what is where it is: used when a part was put somewhere by hand. */
const KEEP: Record<string, string> = {
  "elk.layered.cycleBreaking.strategy": "INTERACTIVE",
  "elk.layered.layering.strategy": "INTERACTIVE",
  "elk.layered.crossingMinimization.strategy": "INTERACTIVE",
  "elk.layered.nodePlacement.strategy": "INTERACTIVE",
};

/** What the layout is asked: nodes of fixed size with fixed pins, one edge a wire, the board in the middle partition. */
export function loomGraph(c: Circuit, hand: HandPlaces = {}): LoomGraph {
  const used = new Set(c.netlist.wires.flatMap((w) => [nameOf(w.from), nameOf(w.to)]));
  const all = [...c.netlist.expanded.instances.values()];
  const host = all.find((i) => i.part.board);
  const board = host && boxOf(host, used, "left");
  const { lines, flags } = drawn(c);
  const at = places(c, board, lines);
  for (const [ref, { side }] of Object.entries(hand)) if (at.has(ref)) at.set(ref, { ...at.get(ref)!, side });
  const boxes = all.map((i) => (i === host ? board! : boxOf(i, used, faceOf(i, at.get(i.ref)!))));
  const colours = coloursOf(c);
  const tags = tagsOf(c, boxes, flags, lines, colours);
  const gutters = Object.fromEntries(
    boxes.map((b) => {
      const most = (s: Side) => Math.max(0, ...tags.filter((t) => t.ref === b.ref && t.side === s).map((t) => t.width));
      return [b.ref, { left: most("left"), right: most("right") }];
    }),
  );
  const deepest = Math.max(1, ...[...at.values()].map((p) => p.depth));
  const column = (ref: string) => {
    const p = at.get(ref);
    return p ? deepest + sign(p.side) * p.depth : deepest;
  };
  const ports = new Set(lines.flatMap((l) => [l.a, l.b]));
  const children = boxes.map((b): ElkNode => {
    const g = gutters[b.ref]!;
    return {
      id: b.ref,
      width: b.w + g.left + g.right,
      height: b.h,
      layoutOptions: { "elk.portConstraints": "FIXED_POS", "elk.partitioning.partition": String(column(b.ref)) },
      ports: b.pins
        .filter((p) => ports.has(p.end))
        .map((p) => ({
          id: p.end,
          x: p.side === "left" ? 0 : b.w + g.left + g.right,
          y: p.y,
          width: 0,
          height: 0,
          layoutOptions: { "elk.port.side": p.side === "left" ? "WEST" : "EAST" },
        })),
    };
  });
  const drawnEnds = new Set(boxes.flatMap((b) => b.pins.map((p) => p.end)));
  const shown = lines
    .filter((l) => drawnEnds.has(l.a) && drawnEnds.has(l.b))
    .map((l) => ({ ...l, colour: wireColour(c, l.net, l.a, l.b) }));
  const edges = shown.map((l, k): ElkExtendedEdge => {
    const [from, to] = column(refOf(l.a)) <= column(refOf(l.b)) ? [l.a, l.b] : [l.b, l.a];
    return { id: `w${k}`, sources: [from], targets: [to] };
  });
  return {
    boxes,
    gutters,
    tags,
    lines: shown,
    nets: c.netlist.nets
      .filter((n) => n.ends.length > 1)
      .map((n) => ({
        id: n.id,
        name: n.name,
        colour: colours.get(n.id)!,
        ends: n.ends.map((e) => `${e.ref}.${e.pin}`).filter((e) => used.has(e)),
      })),
    cables: c.netlist.wires.filter((w) => w.cable).map((w) => ({ from: nameOf(w.from), to: nameOf(w.to) })),
    elk: { id: "loom", layoutOptions: OPTIONS, children, edges },
  };
}

/**
 * The same graph, with every part held where it is: at the height that the person gave, else where the first layout put it.
 * Columns stay as they are: the layout never ends when a part's wires run against its column.
 */
export function held(g: LoomGraph, first: ElkNode, hand: HandPlaces): ElkNode {
  const was = new Map(first.children?.map((n) => [n.id, n]));
  return {
    ...g.elk,
    layoutOptions: { ...g.elk.layoutOptions, ...KEEP },
    children: (g.elk.children ?? []).map((n) => {
      const at = was.get(n.id)!;
      return { ...n, x: at.x!, y: hand[n.id]?.y ?? at.y! };
    }),
  };
}
