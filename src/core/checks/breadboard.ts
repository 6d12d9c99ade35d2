import type { Circuit } from "../circuit";
import { boardProblem, placeOne, type Trouble } from "../build/breadboard";
import { laidNets } from "../build/runsheet/laid";
import type { Finding, Fix, Rule } from "./types";

/** Laying every wire is not asked for where nothing stands on a breadboard. */
const troubles = (c: Circuit, kind: Trouble["kind"]) =>
  c.project.breadboard ? (laidNets(c).layout?.trouble ?? []).filter((t) => t.kind === kind) : [];

/** A free place for one of the parts that the trouble names, boards last: they hold everything else. */
function placeFix(c: Circuit, t: Trouble): Fix[] {
  const board = c.project.breadboard;
  if (!board) return [];
  const problem = boardProblem(c);
  const refs = [...new Set(t.at.map((x) => x.split(/[. ]/)[0]!))]
    .filter((ref) => problem.items.some((i) => i.ref === ref))
    .sort((a, b) => Number(!!c.netlist.instance(a)?.part.board) - Number(!!c.netlist.instance(b)?.part.board));
  for (const ref of refs) {
    const spot = placeOne(problem, board.boards, board.at, ref);
    if (spot)
      return [
        {
          id: `place-${ref}`,
          label: `Put ${ref} into row ${spot.row}, where it needs least wire`,
          edits: [{ type: "moveOnBoard", ref, spot }],
        },
      ];
  }
  return [];
}

/** Looking for a place takes a few milliseconds: with more troubles than this, finding the whole placement again is the way. */
const MOST_FIXES = 6;

const finding = (rule: string, severity: Finding["severity"], c: Circuit, t: Trouble, more: string): Finding => ({
  rule,
  severity,
  at: t.at,
  message: `${t.says} ${more}`.trim(),
  evidence: { boards: c.project.breadboard?.boards.length ?? 0 },
  fixes: (laidNets(c).layout?.trouble.indexOf(t) ?? 0) < MOST_FIXES ? placeFix(c, t) : [],
});

const joins: Rule = {
  rule: "breadboard.row",
  says: "The five holes of a row are joined inside: a row must belong to one net only.",
  check: (c) =>
    troubles(c, "joins").map((t) => finding("breadboard.row", "stop", c, t, "Move one of them. Do not power this.")),
};

const room: Rule = {
  rule: "breadboard.room",
  says: "Every part and every wire needs a free hole that nothing covers.",
  check: (c) =>
    troubles(c, "room").map((t) =>
      finding("breadboard.room", "fault", c, t, "Move a part or take another breadboard."),
    ),
};

const apart: Rule = {
  rule: "breadboard.open",
  says: "Rows, rails and wires must really join every pin of a net: followed hole by hole, split rails included.",
  check: (c) =>
    troubles(c, "apart").map((t) =>
      finding("breadboard.open", "fault", c, t, "Move a part, or place everything again."),
    ),
};

const open: Rule = {
  rule: "breadboard.place",
  says: "A part without a place hangs on leads; on the breadboard it needs fewer wires.",
  check: (c) =>
    troubles(c, "open").map((t) => finding("breadboard.place", "note", c, t, "Until then it hangs on leads.")),
};

export const breadboardRules: Rule[] = [joins, room, apart, open];
