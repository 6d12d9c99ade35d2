import type { ElkNode } from "elkjs/lib/elk-api";
import type { Circuit } from "../../circuit";
import { drawLoom } from "./draw";
import { held, loomGraph } from "./graph";
import type { Loom } from "./types";

export * from "./types";
export { loomDrawing } from "./shapes";
export { loomGraph, type LoomGraph } from "./graph";

/** Lays a graph out: the layered algorithm with orthogonal wires. Handed in, since it runs in another worker on screens. */
export type LayOut = (graph: ElkNode) => Promise<ElkNode>;

/**
 * The loom drawing: the board in the middle, parts around it in the order that gives few crossings, one line a wire, rails
 * named at the pins. Parts that the person put somewhere stay there, the rest stays where it was. Deterministic.
 */
export async function loom(c: Circuit, layOut: LayOut): Promise<Loom> {
  const hand = c.project.drawing?.loom ?? {};
  const g = loomGraph(c, hand);
  const first = await layOut(g.elk);
  const laid = g.boxes.some((b) => hand[b.ref]) ? await layOut(held(g, first, hand)) : first;
  return drawLoom(g, laid, new Set(Object.keys(hand)));
}
