import type { Circuit } from "../../circuit";
import type { LevelVerdict } from "../../circuit/solve";
import { formatV } from "../../quantity";
import { moveFix } from "../help";
import { logicSupplyFix } from "../supply-fixes";
import { translatorFix } from "../translators";
import { twoWayFix } from "../two-way";
import type { Found, Fix, Rule } from "../types";
import { THIN_MARGIN_V, at, pinOf, evidence, ceilingRests, needPart, dividerFix, worst } from "../level-pairs";

/** A part whose signals have the level of its supply may be fed as the board is; nothing need stand in between then. */
function riseFix(c: Circuit, v: LevelVerdict): Fix[] {
  const part = c.netlist.instance(v.receiver.ref);
  const rides = c.netlist.level(v.receiver.ref, v.receiver.pin)?.supply;
  const fed = part?.part.pins.some((p) => p.role === "supply-in" && p.supply === rides);
  return fed && !part?.part.board ? logicSupplyFix(c, v.receiver.ref) : [];
}

/** On a pulled-up bus the part whose pull-ups go too high is the one to feed differently. */
function pullSupplyFix(c: Circuit, v: LevelVerdict): Fix[] {
  const nets = new Set([v.driver.net, v.receiver.net]);
  const refs = c.netlist.elements
    .filter((e) => e.kind === "resistor" && (nets.has(e.a) || nets.has(e.b)))
    .filter((e) =>
      [e.a, e.b].some(
        (id) => (c.netlist.nets.find((n) => n.id === id && n.kind === "supply")?.V?.max ?? 0) > v.ceiling,
      ),
    )
    .map((e) => e.ref);
  return [...new Set(refs)].flatMap((ref) => logicSupplyFix(c, ref));
}

export const overdrive: Rule = {
  rule: "level.overdrive",
  says: "No pin may ever see more than its absolute maximum, usually its own supply and a few tenths of a volt.",
  check: (c) =>
    worst(
      c.levels.filter((v) => v.highest_V > v.ceiling + 1e-9),
      (v) => v.ceiling - v.highest_V,
    ).map((v): Found => {
      const b = needPart(c, v);
      return {
        rule: "level.overdrive",
        severity: "stop",
        at: at(v),
        message:
          v.driver.how === "pull-up"
            ? `A pull-up lifts ${pinOf(v.receiver)} to as much as ${formatV(v.highest_V)}; it takes ${formatV(v.ceiling)} at most. Do not power this.`
            : `${pinOf(v.driver)} can put ${formatV(v.highest_V)} on ${pinOf(v.receiver)}, which takes ${formatV(v.ceiling)} at most. Do not power this.`,
        evidence: evidence(v),
        rests: ceilingRests(c, v),
        fixes: [
          ...dividerFix(c, v),
          ...(v.driver.how === "pull-up"
            ? [...pullSupplyFix(c, v), ...twoWayFix(c, v)]
            : [...riseFix(c, v), ...translatorFix(c, v, THIN_MARGIN_V), ...logicSupplyFix(c, v.driver.ref)]),
          ...(b && b.ref === v.receiver.ref && !v.driver.ref.startsWith("B")
            ? moveFix(c, b.ref, b.pin, b.host, b.need)
            : []),
        ],
      };
    }),
};
