import type { Circuit } from "../../circuit";
import type { NetElement } from "../../circuit/netlist";
import { formatV } from "../../quantity";
import { label, mA, round } from "../help";
import type { Found, Rule } from "../types";

/** What contacts stand that name nothing: keypads and knobs are made for signals. */
const SIGNAL = { mA: 50, V: 24 };
/** Beyond so many times its rating a contact welds or burns at once. */
const BURNS = 2;
/** A current that only a short explains has a rule of its own, amperes. */
const SHORT_A = 5;

/** Current through a contact at worst: as solved, or what the supply tree sends through a switch in a supply's wire. */
function through(c: Circuit, e: NetElement): { A: number; by: string } {
  const f = c.solved.flows.get(e);
  const stage = c.power.stages.find((s) => s.ref === e.ref && [s.from, s.to].every((x) => x === e.a || x === e.b));
  const load = f && [...f.from.passed, ...f.to.passed].find((x) => x.kind === "load" || x.kind === "led");
  // What a board's pin gives is judged at the pin.
  const pin = f && [f.from.end, f.to.end].some((x) => x.kind === "pin" && x.driver.host);
  const A = Math.max(
    f && !pin && f.A.typ < SHORT_A ? Math.max(f.A.worst, load?.A?.peak ?? 0) : 0,
    stage?.out.peak ?? 0,
  );
  return { A, by: load ? label(c, load.ref) : stage ? "everything behind it" : "what it switches" };
}

/** Volts over a contact while it is open. */
function across(c: Circuit, e: NetElement): number {
  const range = (id: string) => {
    const net = c.netlist.nets.find((n) => n.id === id);
    if (net?.V && net.kind !== "signal" && net.kind !== "bus-line") return { lo: net.V.min, hi: net.V.max };
    const v = c.solved.volts.get(id);
    return v ? { lo: v.low.worst, hi: v.high.worst } : null;
  };
  const [a, b] = [range(e.a), range(e.b)];
  return a && b ? Math.max(a.hi - b.lo, b.hi - a.lo) : 0;
}

export const contactRating: Rule = {
  rule: "contact.rating",
  says: "A contact is made for so many amperes and volts: beyond that it arcs, welds shut or burns.",
  check: (c) => {
    const seen = new Set<string>();
    return c.netlist.elements.flatMap((e): Found[] => {
      if (e.kind !== "contact" || e.def?.kind !== "contact" || seen.has(e.ref)) return [];
      const most_mA = e.def.max_mA ?? SIGNAL.mA;
      const most_V = e.def.max_V ?? SIGNAL.V;
      const { A, by } = through(c, e);
      const V = across(c, e);
      const hot = A * 1000 > most_mA * 1.001;
      const high = V > most_V * 1.001;
      if (!hot && !high) return [];
      seen.add(e.ref);
      const burns = A * 1000 > most_mA * BURNS || V > most_V * BURNS;
      return [
        {
          rule: "contact.rating",
          severity: burns ? "stop" : "risk",
          at: [e.ref],
          message: hot
            ? `${label(c, e.ref)} would switch ${mA(A)} for ${by}; its contact is made for ${mA(most_mA / 1000)}. Let it switch a transistor or a relay instead, or take a stronger one.`
            : `${label(c, e.ref)} has up to ${formatV(V)} over its open contact; it is made for ${formatV(most_V)}.`,
          evidence: { switched_mA: round(A * 1000, 0), rated_mA: most_mA, open_V: round(V), rated_V: most_V },
          fixes: [],
        },
      ];
    });
  },
};
