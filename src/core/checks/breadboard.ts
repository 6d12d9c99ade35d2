/** For the rules: what a placement says of itself. */
import type { Circuit } from "../circuit";
import { boardProblem, placeOne, type Trouble } from "../build/breadboard";
import { laidNets } from "../build/runsheet/laid";
import type { Found, Fix } from "./types";

/** Laying every wire is not asked for where nothing stands on a breadboard. */
export const troubles = (c: Circuit, kind: Trouble["kind"]) =>
  c.project.breadboard ? (laidNets(c).layout?.trouble ?? []).filter((t) => t.kind === kind) : [];

/** A free place for one of the parts that the trouble names, boards last: they hold everything else. */
export function placeFix(c: Circuit, t: Trouble): Fix[] {
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
export const MOST_FIXES = 6;

export const finding = (rule: string, severity: Found["severity"], c: Circuit, t: Trouble, more: string): Found => ({
  rule,
  severity,
  at: t.at,
  message: `${t.says} ${more}`.trim(),
  evidence: { boards: c.project.breadboard?.boards.length ?? 0 },
  fixes: () => ((laidNets(c).layout?.trouble.indexOf(t) ?? 0) < MOST_FIXES ? placeFix(c, t) : []),
});
