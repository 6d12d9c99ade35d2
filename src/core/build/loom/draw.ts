import type { ElkExtendedEdge, ElkNode, ElkPoint } from "elkjs/lib/elk-api";
import type { LoomGraph } from "./graph";
import type { Loom, LoomBox, LoomCable, LoomNet, LoomTag } from "./types";

type Segment = { net: string; x1: number; y1: number; x2: number; y2: number };

const r = (v: number) => Math.round(v * 10) / 10;
const pathOf = (points: ElkPoint[]) => points.map((p, i) => `${i ? "L" : "M"}${r(p.x)} ${r(p.y)}`).join("");
const pointsOf = (e: ElkExtendedEdge): ElkPoint[] =>
  (e.sections ?? []).flatMap((s) => [s.startPoint, ...(s.bendPoints ?? []), s.endPoint]);

function segments(net: string, points: ElkPoint[]): Segment[] {
  return points.slice(1).map((p, i) => ({ net, x1: points[i]!.x, y1: points[i]!.y, x2: p.x, y2: p.y }));
}

/** Crossings of wires of different nets: upright against level pieces. */
function countCrossings(list: Segment[]): number {
  const upright = list.filter((s) => s.x1 === s.x2);
  const level = list.filter((s) => s.y1 === s.y2);
  const between = (v: number, a: number, b: number) => v > Math.min(a, b) && v < Math.max(a, b);
  const seen = new Set<string>();
  for (const u of upright)
    for (const l of level)
      if (u.net !== l.net && between(u.x1, l.x1, l.x2) && between(l.y1, u.y1, u.y2))
        seen.add([[u.net, l.net].sort().join(), u.x1, l.y1].join(" "));
  return seen.size;
}

/** The drawing, from the graph and the places that the layout found. */
export function drawLoom(g: LoomGraph, laid: ElkNode, byHand: ReadonlySet<string>): Loom {
  const at = new Map(laid.children?.map((n) => [n.id, n]));
  const boxes = g.boxes.map((b): LoomBox => {
    const n = at.get(b.ref)!;
    const [x, y] = [r(n.x! + g.gutters[b.ref]!.left), r(n.y!)];
    return { ...b, x, y, fixed: byHand.has(b.ref), pins: b.pins.map((p) => ({ ...p, x: r(p.x + x), y: r(p.y + y) })) };
  });
  const pins = new Map(boxes.flatMap((b) => b.pins.map((p) => [p.end, p] as const)));
  const edges = new Map(laid.edges?.map((e) => [e.id, e]));
  const all: Segment[] = [];
  const nets = g.nets.flatMap((n): LoomNet[] => {
    const mine = g.lines.flatMap((l, k) => (l.net === n.id ? [{ l, e: edges.get(`w${k}`)! }] : []));
    const strands = new Map<string, string[]>();
    for (const { l, e } of mine) {
      const points = pointsOf(e);
      // Through the gutters to the pins themselves.
      const [first, last] = [pins.get(e.sources[0]!)!, pins.get(e.targets[0]!)!];
      const whole = [{ x: first.x, y: first.y }, ...points, { x: last.x, y: last.y }];
      all.push(...segments(n.id, whole));
      strands.set(l.colour, [...(strands.get(l.colour) ?? []), pathOf(whole)]);
    }
    const dots = new Map(mine.flatMap(({ e }) => e.junctionPoints ?? []).map((p) => [`${r(p.x)} ${r(p.y)}`, p]));
    return [
      {
        ...n,
        strands: [...strands].map(([colour, paths]) => ({ colour, path: paths.join("") })),
        dots: [...dots.values()].map((p) => [r(p.x), r(p.y)] as [number, number]),
      },
    ];
  });
  const tags = g.tags.map(({ ref: _ref, ...t }): LoomTag => {
    const p = pins.get(t.end)!;
    return { ...t, x: p.x, y: p.y };
  });
  const cables = g.cables.flatMap((w): LoomCable[] => {
    const [a, b] = [pins.get(w.from), pins.get(w.to)];
    if (!a || !b) return [];
    // Over the top of everything: a cable is no wire of the loom.
    const out = (p: typeof a) => p.x + (p.side === "left" ? -12 : 12);
    return [{ from: w.from, to: w.to, path: `M${a.x} ${a.y}H${out(a)}V14H${out(b)}V${b.y}H${b.x}` }];
  });
  return {
    width: Math.ceil(laid.width ?? 0),
    height: Math.ceil(laid.height ?? 0),
    boxes,
    nets,
    tags,
    cables,
    crossings: countCrossings(all),
  };
}
