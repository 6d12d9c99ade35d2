import { circuitOf, type Circuit } from "../circuit";
import { findPin, turnedRound, type Catalogue } from "../parts/catalogue";
import { farOf, linksAt, splitEnd, type BasicEdit, type Link, type Project } from "../project";
import { linkBetween, refuse, type Act } from "./acts";
import { pointOr } from "./points";

/** A wire laid from its old place to a new one: what is built stays where it is until somebody moves it, so it is kept. */
const moved = (l: Link, from: string, to: string): BasicEdit[] => [
  { type: "removeLink", from: l.from, to: l.to },
  { type: "addLink", link: { ...l, from, to, by: "hand", locked: true } },
];

/**
 * Links that all change ends at once: first all go, then all come, so that none is in the way of another. null: the wire
 * leads to an open hole, which joins nothing.
 */
function exchange(links: readonly { l: Link; from: string; to: string | null }[]): BasicEdit[] {
  const all = links.flatMap(({ l, from, to }) =>
    to === null ? [{ type: "removeLink" as const, from: l.from, to: l.to }] : moved(l, from, to),
  );
  return [...all.filter((e) => e.type === "removeLink"), ...all.filter((e) => e.type !== "removeLink")];
}

const isCable = (c: Circuit, end: string) => {
  const { ref, pin } = splitEnd(end);
  const inst = c.netlist.instance(ref);
  return inst !== undefined && findPin(inst.part, pin)?.role === "cable";
};

/** The wire from one point to another is really at a third: the plan follows what was built, and keeps it. */
export function builtAt(project: Project, catalogue: Catalogue, from: string, to: string, really: string): Act {
  const c = circuitOf(project, catalogue);
  const [a, b, x] = [pointOr(c, from), pointOr(c, to), pointOr(c, really)];
  if (!a.ok) return refuse(a.why);
  if (!b.ok) return refuse(b.why);
  if (!x.ok) return refuse(x.why);
  const link = linkBetween(project, a.end, b.end);
  if (!link) return refuse(`There is no wire from ${a.end} to ${b.end} that could be elsewhere.`);
  if (x.end === b.end) return refuse(`${x.end} is where this wire is planned already.`);
  if (x.end === a.end) return refuse(`${x.end} is this wire's other end; a wire needs two points.`);
  if (isCable(c, x.end) !== isCable(c, b.end))
    return refuse(`${x.end} takes ${isCable(c, x.end) ? "a plug" : "a wire"}, ${b.end} does not.`);
  if (linkBetween(project, a.end, x.end)) return refuse(`Another wire leads from ${a.end} to ${x.end} already.`);
  return {
    ok: true,
    edits: moved(link, a.end, x.end),
    says: `the wire from ${a.end} is at ${x.end} instead of ${b.end}. The shortest way back: move that one end to ${b.end}`,
  };
}

/** Everything at one point is really at the other, and the other way round. */
export function builtSwapped(project: Project, catalogue: Catalogue, one: string, other: string): Act {
  const c = circuitOf(project, catalogue);
  const [a, b] = [pointOr(c, one), pointOr(c, other)];
  if (!a.ok) return refuse(a.why);
  if (!b.ok) return refuse(b.why);
  if (a.end === b.end) return refuse(`${a.end} is one point; two are swapped.`);
  if (isCable(c, a.end) || isCable(c, b.end)) return refuse("Plugs can't be swapped with wires.");
  const at = (here: string, there: string) =>
    linksAt(project, here)
      .filter((l) => farOf(l, here) !== there)
      .map((l) => ({ l, from: farOf(l, here), to: there }));
  const list = [...at(a.end, b.end), ...at(b.end, a.end)];
  if (!list.length) return refuse(`Nothing is joined to ${a.end} or ${b.end}.`);
  return {
    ok: true,
    edits: exchange(list),
    says: `the wires at ${a.end} and ${b.end} are swapped. The shortest way back: exchange those two ends`,
  };
}

/** A plug or a row of pins that was put on the wrong way round: the first pin is where the last should be. */
export function builtTurned(project: Project, catalogue: Catalogue, ref: string): Act {
  const c = circuitOf(project, catalogue);
  const inst = c.netlist.instance(ref);
  if (!inst || !project.parts.some((p) => p.ref === ref)) return refuse(`There is no part ${ref} in this project.`);
  if (inst.part.board)
    return refuse(`${ref} is a board; say which of its wires are elsewhere, or that they are in the other row.`);
  const turned = turnedRound(inst.reading);
  if (turned.size < 2) return refuse(`${ref} has one pin only: it can't be turned round.`);
  const list = project.links.flatMap((l) => {
    const end = splitEnd(l.from).ref === ref ? l.from : splitEnd(l.to).ref === ref ? l.to : null;
    const label = end && findPin(inst.part, splitEnd(end).pin)?.label;
    const other = label ? turned.get(label) : undefined;
    if (!end || other === undefined || other === label) return [];
    return [{ l, from: farOf(l, end), to: other && `${ref}.${other}` }];
  });
  if (!list.length) return refuse(`Nothing is joined to ${ref}.`);
  const [first] = turned.keys();
  return {
    ok: true,
    edits: exchange(list),
    says: `${ref} is turned round: ${first!} is where ${turned.get(first!) ?? "an open hole"} should be, and so on. The shortest way back: turn the plug`,
  };
}

/** The pin across: same count, other row of the header. */
function across(c: Circuit, host: string, label: string): string | null {
  const part = c.netlist.instance(host)?.part;
  const pin = part && findPin(part, label);
  const sides = part?.board?.headers ?? [];
  const mine = sides.find((h) => h.id === pin?.at?.header);
  const opposite = { left: "right", right: "left", top: "bottom", bottom: "top" } as const;
  const other = mine && sides.find((h) => h.side === opposite[mine.side]);
  const there = other && part?.pins.find((p) => p.at?.header === other.id && p.at.index === pin?.at?.index);
  return there ? there.label : null;
}

/** A part's wires are in the other row of the board's header: each one straight across. */
export function builtOtherRow(project: Project, catalogue: Catalogue, ref: string): Act {
  const c = circuitOf(project, catalogue);
  const inst = c.netlist.instance(ref);
  const host = inst?.host;
  if (!inst || !host) return refuse(`There is no part ${ref} on a board in this project.`);
  const wires = project.links.flatMap((l) => {
    const end = splitEnd(l.from).ref === host ? l.from : splitEnd(l.to).ref === host ? l.to : null;
    return end && splitEnd(farOf(l, end)).ref === ref && !isCable(c, end) ? [{ l, end }] : [];
  });
  if (!wires.length) return refuse(`No wire leads from ${ref} to ${host}.`);
  const list = wires.map(({ l, end }) => ({ l, end, to: across(c, host, splitEnd(end).pin) }));
  const nowhere = list.find((x) => x.to === null);
  if (nowhere) return refuse(`Across from ${nowhere.end} there is no pin: say for each wire where it is.`);
  return {
    ok: true,
    edits: exchange(list.map(({ l, end, to }) => ({ l, from: farOf(l, end), to: `${host}.${to}` }))),
    says: `${list.length} wires of ${ref} are in the other row: ${list.map((x) => `${splitEnd(x.end).pin} → ${x.to}`).join(", ")}. The shortest way back: move them straight across`,
  };
}
