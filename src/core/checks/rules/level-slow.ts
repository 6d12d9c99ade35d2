import type { Circuit } from "../../circuit";
import type { Binding } from "../../circuit/netlist";
import { formatSI } from "../../quantity";
import { label, round } from "../help";
import { seriesOhm } from "../graph";
import type { Found, Rule } from "../types";

/** Wires and a row of a breadboard, farads. */
const STRAY_F = 25e-12;
/** From 10 to 90 % an edge through R into C takes 2.2 · R · C. */
const EDGE = 2.2;
/** Lights with data of 800 kHz want edges within a tenth of their bit, and read nothing beyond a third, seconds. */
const STRIP = { good_s: 125e-9, most_s: 400e-9, what: "a light chain's data" };
/** A clocked line should have settled within a fifth of its clock's half. */
const CLOCK_SHARE = 0.2;
const USUAL_HZ = 4e6;

interface Want {
  good_s: number;
  most_s: number;
  what: string;
}

function wants(c: Circuit, b: Binding): Want | null {
  const inst = c.netlist.instance(b.ref)!;
  const group = inst.part.groups.find((g) => Object.values(g.pins).includes(b.pin));
  if (group?.kind === "chain" && inst.vars.pixels && !("clockIn" in group.pins)) return STRIP;
  if (b.need.kind !== "spi" || b.need.role === "cs") return null;
  const Hz = Math.min(group?.max_Hz ?? USUAL_HZ, USUAL_HZ);
  return { good_s: CLOCK_SHARE / Hz, most_s: 0.5 / Hz, what: `a clock of ${formatSI(Hz, "Hz")}` };
}

/** The resistance in a signal's way, ohms: in series, or both halves of a divider side by side. */
function wayOhm(c: Circuit, b: Binding): number {
  const divider = c.project.parts.find((p) => p.ref === b.ref)?.companions?.divider;
  if (typeof divider === "object" && Array.isArray(divider?.ohm)) {
    const [top, low] = divider.ohm;
    return (top * low) / (top + low);
  }
  const [from, to] = [c.netlist.netOf(`${b.host}.${b.hostPin}`).id, c.netlist.netOf(`${b.ref}.${b.pin}`).id];
  return seriesOhm(c, from, to) ?? 0;
}

/** Edges that a resistor in the wire makes too slow for what the line carries. */
export const slow: Rule = {
  rule: "level.slow",
  says: "A resistor and the capacitance behind it round every edge off: fast lines then arrive too late or not at all.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Found[] => {
      if (b.direct || b.chainedAfter || b.oneWay) return [];
      const want = wants(c, b);
      const ohm = want ? wayOhm(c, b) : 0;
      if (!want || !ohm) return [];
      const level = c.netlist.level(b.ref, b.pin);
      const F = STRAY_F + ((level?.C_pF ?? 10) + 5) * 1e-12;
      const s = EDGE * ohm * F;
      if (s <= want.good_s) return [];
      return [
        {
          rule: "level.slow",
          severity: s > want.most_s ? "fault" : "risk",
          at: [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`],
          message: `An edge at ${b.ref}.${b.pin} (${label(c, b.ref)}) takes about ${formatSI(s, "s")} behind ${formatSI(ohm, "Ω")}; ${want.what} wants ${formatSI(want.good_s, "s")} or less. Take smaller resistors, or a buffer.`,
          evidence: { edge_ns: round(s * 1e9, 0), wanted_ns: round(want.good_s * 1e9, 0), way_ohm: round(ohm, 0) },
          fixes: [],
        },
      ];
    }),
};
