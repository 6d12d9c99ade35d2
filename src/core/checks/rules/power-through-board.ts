import type { Circuit } from "../../circuit";
import { rootOf, supplyWires } from "../../circuit/power";
import { evaluate } from "../../quantity";
import { splitEnd, type BasicEdit } from "../../project";
import { label, mA, round } from "../help";
import { ownSupplyFix } from "../supply-fixes";
import type { Found, Fix, Rule } from "../types";

/** From here on a load is too much for a board's thin tracks and single header pin. */
const THROUGH_A = 0.5;

export const powerThroughBoard: Rule = {
  rule: "power.through-board",
  says: "A heavy load fed through a board's own pins heats its tracks and fuse and pulls its voltage down: feed it from the source.",
  check: (c) =>
    supplyWires(c.netlist, c.power).flatMap((w): Found[] => {
      // The wire as the current flows: out of a board's pin into a load.
      const from = splitEnd(w.from.includes(":") ? `${w.from.split(":")[0]}.x` : w.from).ref;
      const to = splitEnd(w.to).ref;
      const board = c.netlist.instance(from)?.part;
      const load = c.netlist.instance(to)?.part;
      if (!board?.board || !board.id.startsWith("board/") || load?.board || w.peak_A <= THROUGH_A) return [];
      return [
        {
          rule: "power.through-board",
          severity: "risk",
          at: [w.to, w.from],
          message: `${label(c, to)} draws up to ${mA(w.peak_A)} through ${w.from} of ${label(c, from)}. Feed it straight from the source, and join the grounds.`,
          evidence: { peak_mA: round(w.peak_A * 1000, 0), advised_mA: THROUGH_A * 1000 },
          fixes: () => [...directFix(c, w.from, w.to), ...ownSupplyFix(c, to)],
        },
      ];
    }),
};

/** Moves a load's supply wire from the board's pin to the source that feeds the board, where it has a free outlet. */
function directFix(c: Circuit, from: string, to: string): Fix[] {
  const net = c.netlist.netOf(from);
  const root = rootOf(c.netlist, c.power, net.id);
  const load = c.netlist.instance(splitEnd(to).ref);
  const pin = root?.source.inst.part.pins.find((p) => p.role === "supply-out");
  const ground = root?.source.inst.part.pins.find((p) => p.role === "ground");
  const own = load?.part.pins.find((p) => p.label === splitEnd(to).pin);
  const s = own?.supply ? load?.part.supplies[own.supply] : undefined;
  if (!root || !pin || !load || !s || root.source.inst.part.pins.some((p) => p.role === "cable")) return [];
  const V = root.net.V!;
  if (V.min < evaluate(s.V.min, load.vars) || V.max > evaluate(s.V.max, load.vars)) return [];
  const loadGround = load.part.pins.find((p) => p.role === "ground");
  const edits: BasicEdit[] = [
    { type: "removeLink", from, to },
    { type: "addLink", link: { from: to, to: `${root.source.ref}.${pin.label}` } },
  ];
  if (loadGround && ground)
    edits.push({
      type: "addLink",
      link: { from: `${load.ref}.${loadGround.label}`, to: `${root.source.ref}.${ground.label}` },
    });
  return [{ id: "direct", label: `Feed ${label(c, load.ref)} straight from ${root.source.ref}.${pin.label}`, edits }];
}
