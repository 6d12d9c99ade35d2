import type { NetElement } from "../../circuit/netlist";
import { modelOf, type Driver, type Scene } from "../../circuit/solve/model";
import { fixed } from "../../circuit/solve/network";
import { LOOSE_OHM, prepare, solveAt } from "../../circuit/solve/point";
import type { LaidElement } from "./laid";
import type { How, Shown, State } from "./types";

/** A contact that is closed while nobody touches it. */
export const closedAtRest = (e: NetElement) => e.def?.kind === "contact" && e.def.closed === "rest";
/** Volts differ by less than this between builds that count as the same. */
const round = (v: number) => Math.round(v * 1e4);

interface Piece {
  roots: number[];
  elements: LaidElement[];
  domains: Set<number>;
}

/** What hangs together at a root up to what is held. */
function pieceAt(s: State, root: number): Piece {
  const roots = [root];
  const seen = new Set(roots);
  const elements = new Set<LaidElement>();
  const domains = new Set<number>();
  for (const r of roots) {
    const h = s.held.get(r);
    if (h) {
      domains.add(h.domain);
      continue;
    }
    for (const e of s.at(r)) {
      elements.add(e);
      for (const t of [e.a, e.b, ...(e.control === undefined ? [] : [e.control])]) {
        const next = s.root(t);
        if (!seen.has(next)) {
          seen.add(next);
          roots.push(next);
        }
      }
    }
  }
  return { roots, elements: [...elements], domains };
}

interface Solved {
  volts: (number | undefined)[];
  amps: number[];
}

/** A pin of the board as the driver of a node, in place of its net in the plan. */
const driverAt = (d: Driver, net: string): Driver => ({ ...d, net });

function solve(s: State, p: Piece, how: How, closed: ReadonlySet<LaidElement>): Solved {
  const id = (root: number) => `r${root}`;
  const copies = p.elements.map((e): NetElement => ({
    ...e.of,
    a: id(s.root(e.a)),
    b: id(s.root(e.b)),
    ...(e.control !== undefined && { control: id(s.root(e.control)) }),
    ...(s.ohmOf(e) !== undefined && { ohm: s.ohmOf(e)! }),
  }));
  const held = new Map(p.roots.flatMap((r) => (s.held.has(r) ? [[id(r), fixed(s.held.get(r)!.V.typ)] as const] : [])));
  const drivers = new Map<string, Driver[]>();
  const drive = new Map<string, "high" | "low">();
  for (const d of how.drive ?? []) {
    const net = id(s.root(d.at));
    if (held.has(net)) continue;
    drivers.set(net, [...(drivers.get(net) ?? []), driverAt(d.driver, net)]);
    drive.set(d.driver.key, d.level);
  }
  const scene: Scene = { netlist: s.laid.c.netlist, feeds: new Map(), held, heldNets: new Map(), drivers };
  const island = { nets: p.roots.map(id), elements: copies, ends: [] };
  const shut = new Set(copies.filter((_, i) => closed.has(p.elements[i]!)));
  const model = modelOf(scene, island, { closed: shut, drive, wiper: how.wiper ?? 0.5 });
  const prepared = prepare(model.network);
  const point = solveAt(prepared, new Map());
  const by = new Map([...model.of].map(([e, what]) => [what, e]));
  return {
    volts: p.roots.map((r) => {
      const node = id(r);
      if (held.has(node)) return held.get(node)!.typ;
      if (!prepared.index.has(node) || prepared.floating.has(node)) return undefined;
      return point.impedance(node) > LOOSE_OHM ? undefined : point.volts(node);
    }),
    amps: copies.map((e) => {
      const x = by.get(e);
      return x ? point.amps(x) : 0;
    }),
  };
}

/** The piece of circuit at a root, solved; answers of builds that are alike there are remembered. */
export function lookAt(
  s: State,
  root: number,
  how: How,
  stuck: ReadonlyMap<string, boolean>,
  memo: Map<string, unknown>,
): Shown | null {
  const p = pieceAt(s, root);
  if (!p.elements.length && !how.drive?.length) return null;
  const pressed = new Set(how.pressed ?? []);
  const closed = new Set(
    p.elements.filter(
      (e) =>
        e.of.kind === "contact" &&
        (stuck.get(e.of.ref) ?? (pressed.has(e.of.ref) ? !closedAtRest(e.of) : closedAtRest(e.of))),
    ),
  );
  const local = new Map(p.roots.map((r, i) => [r, i]));
  const place = (t: number) => local.get(s.root(t))!;
  const key = [
    ...p.roots.map((r) => (s.held.has(r) ? round(s.held.get(r)!.V.typ) : "")),
    ...p.elements.map(
      (e) =>
        `${e.i} ${place(e.a)} ${place(e.b)} ${e.control === undefined ? "" : place(e.control)} ${s.ohmOf(e) ?? ""}${closed.has(e) ? "c" : ""}`,
    ),
    ...(how.drive ?? []).map((d) => `${d.driver.key} ${place(d.at) ?? ""} ${d.level}`),
    how.wiper ?? "",
  ].join("|");
  const known = (memo.get(key) as Solved | undefined) ?? solve(s, p, how, closed);
  memo.set(key, known);
  const index = new Map(p.elements.map((e, i) => [e, i]));
  return {
    volts: (r) => known.volts[local.get(r) ?? -1],
    amps: (e) => known.amps[index.get(e) ?? -1] ?? 0,
    domain: p.domains.size === 1 ? [...p.domains][0]! : null,
  };
}
