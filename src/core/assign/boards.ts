import { circuitOf } from "../circuit";
import { partKind, type Catalogue } from "../catalogue";
import { applyEdit, defaultHost, partLookup, type Project } from "../project";
import type { Netlist } from "../netlist";
import { assign } from "./assign";

/** One board tried for a parts list. */
export interface BoardTrial {
  board: string;
  name: string;
  fits: boolean;
  cost: number;
  /** Pins that stay free. */
  spare: number;
  /** Signals that would fall short or overdrive, counted from the level verdicts. */
  overdriven: number;
  short: number;
  /** Parts that nothing on this board feeds at their voltage. */
  unfed: string[];
  stops: number;
  faults: number;
  why: string;
  current: boolean;
  /** In the person's drawer. */
  owned: boolean;
}

/** Parts whose supply pin found no rail: the board brings none out at their voltage, and no supply in the list does. */
function unfedParts(netlist: Netlist): string[] {
  return [...netlist.expanded.instances.values()].flatMap((i) => {
    if (i.part.board || i.inserted) return [];
    const dead = i.part.pins.some(
      (p) =>
        p.role === "supply-in" && !p.optional && i.part.supplies[p.supply!] && !netlist.netOf(`${i.ref}:${p.supply}`).V,
    );
    return dead ? [i.label] : [];
  });
}

const many = (n: number, one: string, more: string) => `${n} ${n === 1 ? one : more}`;

function fitWords(shifting: number, unfed: string[]): string {
  const but = [
    ...(shifting ? [`${many(shifting, "signal", "signals")} would need a level change`] : []),
    ...(unfed.length ? [`nothing here feeds ${unfed.join(" and ")}`] : []),
  ];
  return but.length ? `fits; ${but.join("; ")}` : "fits as it is";
}

const troubles = (b: BoardTrial) => b.overdriven + b.short + b.unfed.length;

/** A bare chip wants a breadboard full of support parts: ready boards come first. */
const isChip = (b: BoardTrial) => partKind(b.board) === "chip";

/**
 * Solves the parts list on every board of the catalogue, present links to the old board dropped. Fitting boards first,
 * then fewer signals that need shifting, then cost, then catalogue order.
 */
export function rankBoards(project: Project, catalogue: Catalogue): BoardTrial[] {
  const host = defaultHost(project, partLookup(project, catalogue));
  const now = project.parts.find((p) => p.ref === host)?.part;
  const own = new Set(project.customParts.map((p) => p.id));
  return [...project.customParts, ...catalogue.parts.filter((p) => !own.has(p.id))]
    .filter((p) => p.board)
    .map((board): BoardTrial => {
      const tried = host
        ? applyEdit(project, { type: "changePart", ref: host, part: board.id }, catalogue)
        : applyEdit(project, { type: "addPart", part: board.id }, catalogue);
      const a = assign(tried, catalogue);
      const levels = a.status === "optimal" ? circuitOf(a.project, catalogue).levels : [];
      const overdriven = new Set(levels.filter((v) => v.highest_V > v.ceiling + 1e-9).map((v) => v.net.name)).size;
      const short = new Set(levels.filter((v) => v.marginHigh < 0 || v.marginLow < 0).map((v) => v.net.name)).size;
      const shifting = overdriven + short;
      const unfed = a.status === "optimal" ? unfedParts(circuitOf(a.project, catalogue).netlist) : [];
      return {
        board: board.id,
        name: board.name,
        fits: a.status === "optimal",
        cost: a.cost,
        spare: a.spare.length,
        overdriven,
        short,
        stops: overdriven,
        unfed,
        faults: short + unfed.length,
        why: a.status === "infeasible" ? (a.clash ?? "does not fit") : fitWords(shifting, unfed),
        current: board.id === now,
        owned: (project.drawer.parts[board.id] ?? 0) > 0,
      };
    })
    .map((b, i) => ({ b, i }))
    .sort(
      (x, y) =>
        Number(y.b.fits) - Number(x.b.fits) ||
        troubles(x.b) - troubles(y.b) ||
        Number(y.b.owned) - Number(x.b.owned) ||
        Number(isChip(x.b)) - Number(isChip(y.b)) ||
        x.b.cost - y.b.cost ||
        x.i - y.i,
    )
    .map(({ b }) => b);
}
