import { circuitOf, type Circuit } from "../circuit";
import { findPin, type Catalogue, type Pin } from "../parts/catalogue";
import { farOf, linksAt, splitEnd, type BasicEdit, type Link, type Project } from "../project";
import { pointOr } from "./points";

/** What is to be done, as edits, or why it can't be, in a sentence with what would be right. */
export type Act = { ok: true; edits: BasicEdit[]; says: string } | { ok: false; why: string };

export const refuse = (why: string): Act => ({ ok: false, why });

const defOf = (c: Circuit, end: string): Pin | undefined => {
  const { ref, pin } = splitEnd(end);
  const part = c.netlist.instance(ref)?.part;
  return part && findPin(part, pin);
};

/** A link between two points, whichever way round it is written. */
export const linkBetween = (project: Pick<Project, "links">, a: string, b: string): Link | undefined =>
  linksAt(project, a).find((l) => farOf(l, a) === b);

/** Whether a reference is a part of the project, not something that the plan inserted. */
export const isOwn = (project: Project, ref: string) => project.parts.some((p) => p.ref === ref);

/** What the plan put in belongs to its part: it is changed there. */
function inserted(c: Circuit, end: string): string | null {
  const inst = c.netlist.instance(splitEnd(end).ref);
  return inst?.inserted
    ? `${inst.ref} comes with ${inst.inserted.by}: change it at that part, or take it out there and place a part of your own.`
    : null;
}

/** Joins two points by a wire. A wire that a stop follows from can be made: the verdict says so at once. */
export function joinPoints(project: Project, catalogue: Catalogue, from: string, to: string): Act {
  const c = circuitOf(project, catalogue);
  const [a, b] = [pointOr(c, from), pointOr(c, to)];
  if (!a.ok) return refuse(a.why);
  if (!b.ok) return refuse(b.why);
  if (a.end === b.end) return refuse(`${a.end} is one point; a wire needs two.`);
  const owned = inserted(c, a.end) ?? inserted(c, b.end);
  if (owned) return refuse(owned);
  if (linkBetween(project, a.end, b.end)) return refuse(`${a.end} and ${b.end} are joined by a wire already.`);
  const [x, y] = [defOf(c, a.end), defOf(c, b.end)];
  if ((x?.role === "cable") !== (y?.role === "cable"))
    return refuse(
      `${x?.role === "cable" ? a.end : b.end} is a plug or socket for a cable: it takes another plug, no wire. Use a pin of the same part.`,
    );
  return {
    ok: true,
    edits: [{ type: "addLink", link: { from: a.end, to: b.end, by: "hand", locked: true } }],
    says: `${a.end} to ${b.end}`,
  };
}

/** Takes a wire away. */
export function cutWire(project: Project, catalogue: Catalogue, from: string, to: string): Act {
  const c = circuitOf(project, catalogue);
  const [a, b] = [pointOr(c, from), pointOr(c, to)];
  if (!a.ok) return refuse(a.why);
  if (!b.ok) return refuse(b.why);
  if (!linkBetween(project, a.end, b.end)) {
    const there = linksAt(project, a.end).map((l) => farOf(l, a.end));
    return refuse(
      `There is no wire from ${a.end} to ${b.end}.${there.length ? ` ${a.end} is joined to ${there.join(", ")}.` : ` Nothing is joined to ${a.end}.`}`,
    );
  }
  return { ok: true, edits: [{ type: "removeLink", from: a.end, to: b.end }], says: `${a.end} from ${b.end}` };
}
