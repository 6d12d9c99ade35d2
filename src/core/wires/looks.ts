import { netColours } from "../build/colours";
import type { Circuit } from "../circuit";
import { splitEnd, type Link, type Project } from "../project";

/** What a wire is taken to be long when nobody said, centimetres. */
const USUAL_CM = 20;

/** The length of a wire: its own, or that of the part that it leads to. */
export function wireCm(project: Project, l: Link): number {
  const parts = [l.from, l.to].map((e) => project.parts.find((p) => p.ref === splitEnd(e).ref)?.wire_cm ?? 0);
  return l.cm ?? (Math.max(...parts) || USUAL_CM);
}

/** The gauge of a wire, where somebody chose one: its own, or that of the part's supply wires. */
export function wireAwg(project: Project, l: Link): number | null {
  const parts = [l.from, l.to].map((e) => project.parts.find((p) => p.ref === splitEnd(e).ref)?.options?.wire_awg);
  return l.awg ?? parts.find((x): x is number => typeof x === "number") ?? null;
}

/** The colour of a wire: its own, or that of its net. */
export function colourOf(c: Circuit, l: Link): string {
  const net = c.netlist.netOf(l.from);
  return l.colour ?? netColours(c.netlist.nets, c.project.houseRules.wireColours).get(net?.id ?? "") ?? "";
}
