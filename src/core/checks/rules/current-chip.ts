import { count } from "../../quantity/count";
import type { Part } from "../../parts/catalogue";
import type { LedPath } from "../../circuit/solve";
import { label, round } from "../help";
import type { Found, Rule } from "../types";
import { pinLoads, type PinLoad, lessCurrent } from "../currents";

interface ChipGroup {
  says: string;
  /** Null: all pins. */
  pins: string[] | null;
  source_mA: number;
  sink_mA: number;
}

/** What a board's chip, or a register, expander or driver, may pass through its pins together. */
function chipGroups(part: Part): ChipGroup[] {
  const all = "all pins together";
  const { board, chipLimits } = part;
  if (board)
    return [{ says: all, pins: null, source_mA: board.chip_mA, sink_mA: board.chip_mA }, ...(board.portGroups ?? [])];
  if (!chipLimits) return [];
  const { source_mA, sink_mA, groups } = chipLimits;
  return [{ says: all, pins: null, source_mA, sink_mA }, ...groups];
}

/** Over this share of what a chip may pass in all there is no room for the chip itself. */
const CHIP_ROOM = 0.8;

export const currentChip: Rule = {
  rule: "current.chip",
  says: "The currents of all pins add up in the chip's supply pins, and those of a port in its own: both have a limit.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst): Found[] => {
      const host = inst.ref;
      const mine = [...pinLoads(c).values()].filter((s) => s.ref === host);
      if (!mine.length) return [];
      const sum = (list: PinLoad[], side: "source_A" | "sink_A") => list.reduce((t, s) => t + s[side], 0) * 1000;
      const groups = chipGroups(inst.part);
      // The tightest group speaks for the chip.
      const over = groups
        .flatMap((g) => {
          const list = g.pins ? mine.filter((s) => g.pins!.includes(s.pin)) : mine;
          return (["source", "sink"] as const).map((side) => {
            const I = sum(list, `${side}_A`);
            return { g, side, I, limit: g[`${side}_mA`], share: I / g[`${side}_mA`], list };
          });
        })
        .sort((a, b) => b.share - a.share)[0];
      if (!over || over.share <= CHIP_ROOM) return [];
      const stop = over.share > 1;
      const worst = [...over.list].sort((a, b) => b.source_A + b.sink_A - a.source_A - a.sink_A);
      return [
        {
          rule: "current.chip",
          severity: stop ? "stop" : "risk",
          at: [host, ...worst.slice(0, 4).map((s) => `${host}.${s.pin}`)],
          message: `${label(c, host)}: ${over.g.says} may have to ${over.side === "source" ? "give" : "take"} ${over.I.toFixed(0)} mA, ${stop ? "over" : "close to"} the ${over.limit} mA that the chip stands${stop ? ". Do not power this" : ""}.`,
          evidence: { worst_mA: round(over.I, 1), limit_mA: over.limit, pins: over.list.length },
          fixes: worst.flatMap((s) => s.paths).slice(0, 6).length
            ? [
                {
                  id: "dim-all",
                  label: `Run the ${count(worst.flatMap((s) => s.paths).length, "light")} with less current each`,
                  edits: worst
                    .flatMap((s) => s.paths)
                    .flatMap((p) => lessCurrent(c, p, (worstOf(p) * 0.7) / over.share)[0]?.edits ?? []),
                },
              ].filter((f) => f.edits.length)
            : [],
        },
      ];
    }),
};

/** What a light gets at worst, mA. */
const worstOf = (p: LedPath) => (p.I?.max ?? 0) * 1000;
