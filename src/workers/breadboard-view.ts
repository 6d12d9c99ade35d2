import type { Catalogue } from "../core/parts/catalogue";
import { circuitOf, type Circuit } from "../core/circuit";
import type { Drawing } from "../core/drawing";
import type { Project } from "../core/project";
import {
  boardProblem,
  breadboardDrawing,
  propose,
  seat,
  usedTo,
  type Rect,
  type SizeId,
  type Spot,
  type Trouble,
} from "../core/build/breadboard";
import { layoutProven, provenLayout } from "../core/build/runsheet";

/** A part on the breadboard, as the editor takes hold of it. */
export interface HeldPart {
  ref: string;
  label: string;
  spot: Spot;
  /** Where it can be taken hold of, in hole pitches. */
  area: Rect;
  kind: "straddle" | "strip" | "legs" | "bridge";
  holes: string;
}
export interface BreadboardView {
  /** Whether the project carries this placement, or it is only a proposal. */
  stored: boolean;
  sizes: SizeId[];
  split: boolean;
  parts: HeldPart[];
  beside: { ref: string; label: string; why: string }[];
  wires: {
    net: string;
    kind: string;
    from: string;
    holeA: string | null;
    to: string;
    holeB: string | null;
    mm: number;
  }[];
  trouble: Trouble[];
  jumpers: number;
  wire_mm: number;
  /** Jumpers and millimetres of the best placement that the search finds on the same boards; null for a proposal. */
  best: { jumpers: number; wire_mm: number } | null;
  drawing: Drawing;
  /** The last row that anything stands in or leads to: what lies below is empty. */
  usedTo: number;
}

let last: { key: string; jumpers: number; wire_mm: number } | undefined;

/** The best that the search finds on the same boards. Moving a part does not change it: found once for a circuit and its boards. */
function bestOn(c: Circuit, own: { sizes: readonly SizeId[] }): { jumpers: number; wire_mm: number } {
  const { parts, links, houseRules, breadboard } = c.project;
  const key = JSON.stringify([parts, links, houseRules, own.sizes, breadboard?.split]);
  if (last?.key !== key) {
    const l = propose(c, [...own.sizes], {}, breadboard?.split ?? true);
    last = { key, jumpers: l.jumpers, wire_mm: l.wire_mm };
  }
  return last;
}

export function makeBreadboardView(project: Project, catalogue: Catalogue): BreadboardView {
  const c = circuitOf(project, catalogue);
  const own = layoutProven(c);
  const l = own ?? provenLayout(c, propose(c));
  const best = own && bestOn(c, own);
  const items = new Map(boardProblem(c).items.map((i) => [i.ref, i]));
  const label = (ref: string) => c.netlist.instance(ref)?.label ?? ref;
  const names = new Map(c.netlist.nets.map((n) => [n.id, n.name]));
  return {
    stored: own !== null,
    sizes: [...l.sizes],
    split: project.breadboard?.split ?? true,
    parts: l.parts.flatMap((p): HeldPart[] => {
      const item = items.get(p.ref);
      const at = item && seat(item, l.spots[p.ref]!, l.sizes);
      if (!item || !at?.body) return [];
      return [
        {
          ref: p.ref,
          label: label(p.ref),
          spot: l.spots[p.ref]!,
          area: at.body,
          kind: item.print.kind,
          holes: p.holes.map((h) => `${h.pin} ${h.hole}`).join(", "),
        },
      ];
    }),
    beside: l.beside.map((b) => ({ ...b, label: label(b.ref) })),
    wires: l.wires.map((w) => ({
      net: names.get(w.net) ?? w.net,
      kind: w.kind,
      from: w.a.at,
      holeA: w.a.hole,
      to: w.b.at,
      holeB: w.b.hole,
      mm: w.apart_mm,
    })),
    trouble: l.trouble,
    jumpers: l.jumpers,
    wire_mm: l.wire_mm,
    best: best && { jumpers: best.jumpers, wire_mm: best.wire_mm },
    drawing: breadboardDrawing(c, l),
    usedTo: usedTo(l),
  };
}

/** The project with its parts placed anew; those that are held stay where the project has them. */
export function placedAgain(project: Project, catalogue: Catalogue, boards: SizeId[] | null, held: string[]): Project {
  const c = circuitOf(project, catalogue);
  const given = Object.fromEntries(Object.entries(project.breadboard?.at ?? {}).filter(([ref]) => held.includes(ref)));
  const split = project.breadboard?.split;
  const l = propose(c, boards ?? undefined, given, split ?? true);
  return { ...project, breadboard: { boards: [...l.sizes], at: l.spots, ...(split !== undefined && { split }) } };
}
