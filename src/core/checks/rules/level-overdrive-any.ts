import type { Circuit } from "../../circuit";
import { chooseDivider } from "../../circuit/formulas";
import type { Pin } from "../../parts/catalogue";
import { clampsToSupply, type Instance, type Net } from "../../circuit/netlist";
import { evaluate, formatOhm, formatV } from "../../quantity";
import type { Driver } from "../../circuit/solve";
import { round } from "../help";
import { logicSupplyFix } from "../supply-fixes";
import type { Found, Fix, Rule } from "../types";
import { endWords, unwireFixes, wayWords } from "./words";

/** Rails closer than this in their usual voltage are compared at it. */
const SAME_V = 0.25;

interface Seen {
  worst: number;
  typ: number;
  /** Where it comes from, in words. */
  by: string;
  straight: boolean;
  /** Usual volts of the rail or supply behind it. */
  rail: number;
  /** The pin that drives it, when it is one. */
  driver: Driver | null;
}

/** What a pin's own supply is, at its lowest, usual and highest; a part that is not fed yet is judged by what it is made for. */
function ownSupply(c: Circuit, inst: Instance, key: string) {
  const net = c.netlist.netOf(`${inst.ref}:${key}`);
  const s = inst.part.supplies[key];
  if (net.V && net.kind === "supply") return { net, V: net.V, fed: true };
  if (!s) return null;
  const most = evaluate(s.V.max, inst.vars);
  return { net, V: { min: most, typ: most, max: most }, fed: false };
}

/** Usual volts of a driving pin's own supply. */
const railOf = (c: Circuit, d: Driver) => c.netlist.netOf(`${d.ref}:${d.level.supply}`).V?.typ ?? d.high.typ;

function seenAt(c: Circuit, net: Net): Seen | null {
  if (net.kind === "supply" && net.V)
    return {
      worst: net.V.max,
      typ: net.V.typ,
      by: endWords(c, { kind: "rail", net }),
      straight: true,
      rail: net.V.typ,
      driver: null,
    };
  const v = c.solved.volts.get(net.id);
  if (!v || v.from.end.kind === "open") return null;
  return {
    worst: v.high.worst,
    typ: v.high.typ,
    by: `${endWords(c, v.from.end)}${wayWords(v.from.passed)}`,
    straight: false,
    rail: v.from.end.kind === "rail" ? (v.from.end.net.V?.typ ?? 0) : railOf(c, v.from.end.driver),
    driver: v.from.end.kind === "pin" ? v.from.end.driver : null,
  };
}

/** By how much the worst case is over the pin's ceiling, with the ceiling; null while it is inside. */
function over(c: Circuit, inst: Instance, pin: Pin, net: Net, seen: Seen) {
  const level = inst.part.levels[pin.level!]!;
  const own = ownSupply(c, inst, level.supply);
  if (!own || own.net === net) return null;
  const at = (V: number) => evaluate(level.absMax, { ...inst.vars, V });
  // Inside even with its own supply at its lowest: nothing to work out.
  if (seen.worst <= at(own.V.min)) return null;
  const alike = Math.abs(seen.rail - own.V.typ) <= SAME_V;
  if (!clampsToSupply(level))
    return seen.worst > at(own.V.min) + 1e-9 ? { V: seen.worst, ceiling: at(own.V.min) } : null;
  // A ceiling that rides on the supply: rails of one voltage at that, rails of one source as they move together.
  const room = at(own.V.typ) - own.V.typ;
  const moving = own.fed && !seen.straight && !alike ? c.solved.above(net.id, own.net.id) : null;
  const high = alike ? seen.typ - own.V.typ : (moving?.worst ?? seen.worst - own.V.min);
  return high > room + 1e-9 ? { V: seen.worst, ceiling: at(alike ? own.V.typ : own.V.min) } : null;
}

/** Of the ceiling, so much the divided voltage shall reach at its highest. */
const SHARES = [0.9, 0.8, 0.7, 0.5, 0];

/** Dividers of less than this draw more than they need, ohms. */
const SMALL_OHM = 15_000;

/** Two resistors instead of a wire, in words: which ones bring the voltage inside. */
function dividerWords(V: number, typ: number, ceiling: number): string {
  const from = { min: typ, typ, max: V };
  const pick = SHARES.map((s) => chooseDivider({ from, VIH: s * ceiling, ceiling })).find((x) => x !== null);
  // A meter's input wants little: larger values of the same ratio waste less, and a converter still reads them well.
  const scale = pick && pick.top_ohm + pick.bottom_ohm < SMALL_OHM ? 10 : 1;
  return pick
    ? ` To measure it, divide it: ${formatOhm(pick.top_ohm * scale)} above and ${formatOhm(pick.bottom_ohm * scale)} to ground leave ${formatV(pick.out.max)} at most.`
    : "";
}

/** Another part's output on the same line is too high for this one: that part at a lower supply, or its output divided. */
function driverFixes(c: Circuit, d: Driver, net: Net, ceiling: number): Fix[] {
  const inst = c.netlist.instance(d.ref);
  const entry = c.project.parts.find((p) => p.ref === d.ref);
  if (!inst || !entry || d.host) return [];
  const least = Math.max(
    0,
    ...net.ends.map((e) => {
      const level = c.netlist.level(e.ref, e.pin);
      const V = level && c.netlist.netOf(`${e.ref}:${level.supply}`).V;
      const listens = e.ref !== d.ref && (e.as === "receiver" || e.as === "both") && level?.VIH !== undefined && V;
      return listens ? evaluate(level.VIH!, { ...c.netlist.instance(e.ref)!.vars, V: V.max }) : 0;
    }),
  );
  const pick = chooseDivider({ from: d.high, VIH: least, ceiling });
  const before = entry.companions?.divider;
  const there = typeof before === "object" && before ? (before.pins ?? (before.pin ? [before.pin] : [])) : [];
  const pins = [...new Set([...there, d.pin])];
  const ohm: [number, number] = pick ? [pick.top_ohm, pick.bottom_ohm] : [0, 0];
  return [
    ...logicSupplyFix(c, d.ref),
    ...(pick
      ? [
          {
            id: "divider",
            label: `Divide ${d.key} with ${formatOhm(ohm[0])} and ${formatOhm(ohm[1])}: ${formatV(pick.out.min)} to ${formatV(pick.out.max)} arrive`,
            edits: [
              {
                type: "setCompanion" as const,
                ref: d.ref,
                key: "divider" as const,
                value: pins.length > 1 ? { ohm, pins } : { ohm, pin: d.pin },
              },
            ],
          },
        ]
      : []),
  ];
}

/**
 * Every signal pin of every part against everything that reaches it: rails straight on it or through resistors, contacts,
 * lights and wipers at their worst place. Signals of other parts are judged pair by pair.
 */
export const overdriveAny: Rule = {
  rule: "level.overdrive",
  says: "No pin may ever see more than its absolute maximum, usually its own supply and a few tenths of a volt.",
  check: (c) => {
    const told = new Set(
      c.levels.filter((v) => v.highest_V > v.ceiling + 1e-9).map((v) => `${v.receiver.ref}.${v.receiver.pin}`),
    );
    const lifted = c.levels
      .filter((v) => v.driver.how === "pull-up" && v.highest_V > v.ceiling + 1e-9)
      .flatMap((v) => {
        const way = c.solved.volts.get(v.receiver.net)?.from.passed ?? [];
        return way.map((e) => ({ receiver: v.receiver, by: c.netlist.instance(e.ref)?.inserted?.by ?? e.ref }));
      });
    return [...c.netlist.expanded.instances.values()].flatMap((inst) =>
      inst.part.pins.flatMap((pin): Found[] => {
        const end = `${inst.ref}.${pin.label}`;
        if (pin.role !== "signal" || !pin.level || told.has(end)) return [];
        const net = c.netlist.netOf(end);
        if (net.ends.length < 2 && !c.solved.volts.has(net.id)) return [];
        // A bus that one part's pull-ups lift too high is told at one of its lines; the fix is for all of them.
        const way = c.solved.volts.get(net.id)?.from;
        const pulls =
          way?.end.kind === "rail" ? way.passed.map((e) => c.netlist.instance(e.ref)?.inserted?.by ?? e.ref) : [];
        if (lifted.some((v) => v.receiver.ref === inst.ref && pulls.includes(v.by))) return [];
        const seen = seenAt(c, net);
        const bad = seen && over(c, inst, pin, net, seen);
        if (!seen || !bad) return [];
        const measured = seen.straight && pin.offers?.some((o) => o.kind === "adc") && seen.typ > bad.ceiling;
        const who = inst.label === inst.ref ? "" : ` (${inst.label})`;
        return [
          {
            rule: "level.overdrive",
            severity: "stop",
            at: [end],
            message: `${end}${who} gets up to ${formatV(bad.V)} from ${seen.by}; it takes ${formatV(bad.ceiling)} at most. Do not power this.${measured ? dividerWords(bad.V, seen.typ, bad.ceiling) : ""}`,
            evidence: {
              highest_V: round(bad.V),
              usual_V: round(seen.typ),
              ceiling_V: round(bad.ceiling),
              from: seen.by,
            },
            fixes: seen.straight
              ? unwireFixes(c, end)
              : seen.driver
                ? driverFixes(c, seen.driver, net, bad.ceiling)
                : [],
          },
        ];
      }),
    );
  },
};
