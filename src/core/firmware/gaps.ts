import type { Circuit } from "../circuit";
import { isWorked } from "../circuit/netlist";
import { TARGETS } from ".";
import { driverOf, leftOut } from "./drivers";
import { driverParts } from "./pins";
import type { Lack } from "./types";

/** A part that no program of its board works, and why. */
export interface Gap extends Lack {
  host: string;
  ref: string;
}

/**
 * Parts that are planned whole on a board and that none of its programs works. A part that one target works is no gap: that
 * target can be chosen. Boards without any program are told elsewhere.
 */
export function gaps(c: Circuit): Gap[] {
  return c.netlist.expanded.hosts.flatMap((host): Gap[] => {
    const targets = TARGETS.filter((t) => !t.without(c).some((w) => w.host === host));
    const worked = new Set<string>();
    const why = new Map<string, Lack>();
    for (const t of targets)
      for (const p of driverParts(c, host, t.id, (b) => b)) {
        const reason = leftOut(p) ?? t.leaves?.(p) ?? null;
        if (reason === null && driverOf(p)) worked.add(p.inst.ref);
        else if (reason !== null) why.set(p.inst.ref, why.get(p.inst.ref) ?? reason);
      }
    // What hangs behind another part is bound to that part, not to the board.
    if (host === c.netlist.expanded.hosts[0])
      for (const b of c.netlist.bindings) {
        const inst = c.netlist.instance(b.ref)!;
        const behind = c.netlist.instance(b.host)!;
        if (behind.part.board || !inst.part.bringup || why.has(b.ref)) continue;
        why.set(b.ref, {
          kind: "capability",
          why: `it hangs behind ${b.host}, and our programs do not work through that yet`,
        });
      }
    return [...why]
      .filter(([ref]) => !worked.has(ref) && isWorked(c.netlist.instance(ref)!))
      .map(([ref, lack]) => ({ host, ref, ...lack }));
  });
}
