import { type Need, type Part, type Pin } from "../../../parts/catalogue";
import type { Instance, Netlist } from "../../../circuit/netlist";
import { evaluate } from "../../../quantity";
import { capabilityCounts, hasCap, type Serve } from "../capability";
import type { Price } from "../problem";
import { WEIGHTS } from "../weights";

/** What spending a pin with rare capabilities on a need that does not want them costs, on this board. */
export function scarcityPrices(board: Part): (pin: Pin, need: Need) => Price[] {
  const counts = capabilityCounts(board);
  const total = counts.get("digital") ?? 1;
  return (pin, need) => {
    const wanted = new Set<string>([need.kind, ...(need.require ?? []), ...(need.prefer ?? [])]);
    return [...new Set(pin.offers?.map((o) => o.kind))].flatMap((kind): Price[] => {
      const weight = (WEIGHTS.scarcity as Record<string, number>)[kind];
      if (!weight || wanted.has(kind)) return [];
      const count = counts.get(kind)!;
      // What most pins can do is not rare: spending it costs nothing.
      if (count * 2 > total) return [];
      const cost = Math.min(WEIGHTS.scarcityMost, Math.round(weight / count));
      return cost ? [{ reason: "scarcity", cost, says: `${pin.label} could do ${kind.toUpperCase()}` }] : [];
    });
  };
}

/** Hazards of the pin that matter to the need. */
export const hazardPrices = (pin: Pin, need: Need): Price[] =>
  (pin.hazards ?? []).flatMap((h): Price[] => {
    const cost = (WEIGHTS.hazard as Record<string, number>)[h.kind] ?? 0;
    if (!cost || (h.kind === "adc-radio" && need.kind !== "adc")) return [];
    return [{ reason: "hazard", cost, says: `${pin.label}: ${h.says}` }];
  });

/** What the way of serving costs: a bus on pins that libraries don't expect, software, a multiplexer's channel. */
export function busPrices(pin: Pin, way: Extract<Serve, { ok: true }>, behind: string | null): Price[] {
  if (!way.bus) return [];
  if (way.software)
    return [{ reason: "software", cost: WEIGHTS.software, says: `the program has to time ${pin.label} itself` }];
  if (behind) return [{ reason: "bus", cost: WEIGHTS.channel, says: `${pin.label} is a channel of ${behind}` }];
  if (way.usual) return [];
  return [
    {
      reason: "bus",
      cost: WEIGHTS.unusualBus,
      says: `${pin.label} is not the pin that libraries expect for ${way.bus}`,
    },
  ];
}

/** Wishes of the need that the pin, used in this way, does not meet. */
export const wishPrices = (pin: Pin, need: Need, unmet: readonly string[], board: Part): Price[] =>
  (need.prefer ?? [])
    .filter((cap) => unmet.includes(cap) || !hasCap(pin, cap, board))
    .map((cap) => ({
      reason: "preference",
      cost: WEIGHTS.preference,
      says: hasCap(pin, cap, board) ? `the ${cap} of ${pin.label} is needed elsewhere` : `${pin.label} lacks ${cap}`,
    }));

/** The highest voltage that a part's pin puts on its wire by itself; null where that hangs on other things. */
export function drivenVolts(netlist: Netlist, inst: Instance, pin: Pin): number | null {
  const level = pin.level ? inst.part.levels[pin.level] : undefined;
  if (!level || !["out", "bidir", "analog-out"].includes(pin.io ?? "") || level.output === "open-drain") return null;
  const V = netlist.netOf(`${inst.ref}:${level.supply}`).V;
  if (!V) return null;
  return level.outMax === undefined ? V.max : Math.min(V.max, evaluate(level.outMax, { ...inst.vars, V: V.max }));
}

/** What a pin of a host can bear, volts. */
export function bearsVolts(netlist: Netlist, host: Instance, pin: Pin): number {
  const level = pin.level ? host.part.levels[pin.level] : undefined;
  const V = level && netlist.netOf(`${host.ref}:${level.supply}`).V;
  return level && V ? evaluate(level.absMax, { ...host.vars, V: V.typ }) : Infinity;
}
