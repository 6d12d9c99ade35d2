import { supplyWays, type SupplyWay, type WayStep } from "../../circuit/power";
import { formatV } from "../../quantity";
import { label, round } from "../help";
import { ownSupplyFix } from "../supply-fixes";
import type { Found, Rule, Severity } from "../types";
import type { Circuit } from "../../circuit";

/** Less than this is rounding of data, volts. */
const SLACK_V = 0.005;

/** Usual volts and amperes fail: it will not work. A peak at the usual source fails: at times. Only the lowest source: told. */
const gradeOf = (w: SupplyWay): Severity | null =>
  w.V.typ < w.needs_V - SLACK_V
    ? "fault"
    : w.V.loaded < w.needs_V - SLACK_V
      ? "risk"
      : w.V.worst < w.needs_V - SLACK_V
        ? "note"
        : null;

/** A source or regulator on the way that is asked for more than it gives has a rule of its own. */
const overloaded = (c: Circuit, w: SupplyWay) =>
  c.power.limits.some((l) => l.flow.peak > l.limit_A && w.steps.some((s) => s.ref === l.ref));

const WORDS: Record<WayStep["kind"], (c: Circuit, s: WayStep) => string> = {
  source: (c, s) => label(c, s.ref),
  inside: (c, s) => `the inside of ${label(c, s.ref)}`,
  cable: () => "the USB cable",
  converter: (c, s) => label(c, s.ref),
  wire: (c, s) => `the wire to ${label(c, s.ref)}`,
};

/** The heaviest load of the source on a supply of its own: then the others get theirs, too. */
function relief(c: Circuit, w: SupplyWay) {
  const source = w.steps[0]?.ref;
  const limit = c.power.limits.find((l) => l.kind === "source" && l.ref === source);
  const heavy = limit?.loads.find((x) => {
    const part = c.netlist.instance(x.ref)?.part;
    return part && !part.board && c.project.parts.some((p) => p.ref === x.ref);
  });
  return heavy ? ownSupplyFix(c, heavy.ref) : [];
}

/** What the part really gets once current flows: the rail less what cable, cells, regulators and wires keep. */
export const arrives: Rule = {
  rule: "power.arrives",
  says: "Cells, cables, diodes and wires keep volts for themselves once current flows: the part gets what is left.",
  check: (c) =>
    supplyWays(c.netlist, c.power).flatMap((w): Found[] => {
      const severity = gradeOf(w);
      // A rail that is too low by itself is told by its range.
      if (!severity || w.rail_V < w.needs_V || overloaded(c, w)) return [];
      const pin = c.netlist.instance(w.ref)!.part.pins.find((p) => p.supply === w.supply);
      const key = severity === "fault" ? "typ" : severity === "risk" ? "loaded" : "worst";
      const takers = w.steps.filter((s) => s.drop[key] > SLACK_V).sort((a, b) => b.drop[key] - a.drop[key]);
      const most = takers[0];
      if (!most) return [];
      const when = { typ: "at the usual current", loaded: "at peak", worst: "at peak, from the lowest source" }[key];
      return [
        {
          rule: "power.arrives",
          severity,
          at: [pin ? `${w.ref}.${pin.label}` : w.ref],
          message: `${formatV(w.V[key])} arrive at ${label(c, w.ref)} ${when}; it wants ${formatV(w.needs_V)}. ${takers
            .slice(0, 3)
            .map((s) => `${formatV(s.drop[key])} stay in ${WORDS[s.kind](c, s)}`)
            .join(", ")}.`,
          evidence: {
            usual_V: round(w.V.typ),
            peak_V: round(w.V.loaded),
            worst_V: round(w.V.worst),
            wants_V: round(w.needs_V),
          },
          fixes: () => relief(c, w),
        },
      ];
    }),
};
