import type { Catalogue, Group } from "../../parts/catalogue";
import { circuitOf } from "../../circuit";
import type { Netlist } from "../../circuit/netlist";
import type { Link, Project } from "../../project";

const chainOf = (netlist: Netlist, ref: string): Group | undefined =>
  netlist.instance(ref)?.part.groups.find((g) => g.kind === "chain" && g.pins.in && g.pins.out);

const before = (netlist: Netlist, ref: string) =>
  netlist.bindings.find((b) => b.ref === ref && b.chainedAfter)?.chainedAfter;

/** Parts of the same kind of chain that a piece can be put behind: not itself, nor one that already follows it. */
export function chainCandidates(netlist: Netlist, ref: string): string[] {
  const own = chainOf(netlist, ref);
  if (!own) return [];
  const shape = Object.keys(own.pins).sort().join();
  const follows = (other: string): boolean => {
    const seen = new Set<string>();
    for (let here: string | undefined = other; here && !seen.has(here); here = before(netlist, here)) {
      if (here === ref) return true;
      seen.add(here);
    }
    return false;
  };
  return [...netlist.expanded.instances.values()]
    .filter((i) => i.ref !== ref && !i.inserted && !follows(i.ref))
    .filter((i) => {
      const g = chainOf(netlist, i.ref);
      return g !== undefined && Object.keys(g.pins).sort().join() === shape;
    })
    .map((i) => i.ref);
}

/**
 * Puts a piece of a chain behind another (data-out to data-in, clocks and latches side by side), or back on pins of its
 * own. Wires that stood in the way go; the planner lays the rest.
 */
export function chainAfter(project: Project, catalogue: Catalogue, ref: string, after: string | null): Project {
  const { netlist } = circuitOf(project, catalogue);
  const own = chainOf(netlist, ref);
  const lead = after ? chainOf(netlist, after) : undefined;
  if (!own || (after && !lead)) return project;
  const inputs = [own.pins.in, own.pins.clock, own.pins.latch, own.pins.clockIn].flatMap((l) =>
    l ? [`${ref}.${l}`] : [],
  );
  const out = lead
    ? [`${after}.${lead.pins.out}`, ...(lead.pins.clockOut ? [`${after}.${lead.pins.clockOut}`] : [])]
    : [];
  const stays = (l: Link) => ![l.from, l.to].some((e) => inputs.includes(e) || out.includes(e));
  const links = project.links.filter(stays);
  // The resistor at the first data-in is for the first piece only.
  const parts = project.parts.map((p) => {
    if (p.ref !== ref || !p.companions?.seriesResistor || !after) return p;
    return { ...p, companions: { ...p.companions, seriesResistor: null } };
  });
  if (!lead || !after) return { ...project, links };
  const join = (mine: string | undefined, theirs: string | undefined): Link[] =>
    mine && theirs ? [{ from: `${after}.${theirs}`, to: `${ref}.${mine}`, locked: true }] : [];
  return {
    ...project,
    parts,
    links: [
      ...links,
      ...join(own.pins.in, lead.pins.out),
      ...join(own.pins.clockIn, lead.pins.clockOut),
      ...join(own.pins.clock, lead.pins.clock),
      ...join(own.pins.latch, lead.pins.latch),
    ],
  };
}
