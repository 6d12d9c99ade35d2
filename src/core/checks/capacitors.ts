import { recommendedCompanions } from "../plan/assign";
import type { Circuit } from "../circuit";
import { evaluate, formatSI } from "../quantity";
import { elementsAt, netById, otherEnd } from "./graph";
import { label, round } from "./help";
import type { Finding, Fix, Rule } from "./types";

/** Capacitance between a supply net and ground, farads, of capacitors of at least `least`. */
const capacitance = (c: Circuit, net: string, least = 0) =>
  elementsAt(c, net)
    .filter((e) => e.kind === "capacitor" && netById(c, otherEnd(e, net))?.kind === "ground" && (e.F ?? 0) >= least)
    .reduce((s, e) => s + (e.F ?? 0), 0);
const count = (c: Circuit, net: string, least: number) =>
  elementsAt(c, net).filter(
    (e) => e.kind === "capacitor" && netById(c, otherEnd(e, net))?.kind === "ground" && (e.F ?? 0) >= least,
  ).length;

/** The value that the planner would take, from what the person owns. */
function capacitorFix(c: Circuit, ref: string, key: "bulkCapacitor" | "decoupling"): Fix[] {
  const entry = c.project.parts.find((p) => p.ref === ref);
  if (!entry) return [];
  const { [key]: _old, ...others } = entry.companions ?? {};
  const value = recommendedCompanions(
    c.project,
    { ...entry, companions: others },
    c.catalogue,
    c.netlist.instance(ref)?.host,
  )[key];
  if (!value || value === "internal" || !value.F) return [];
  return [
    {
      id: key === "bulkCapacitor" ? "bulk" : "decoupling",
      label: `Put ${formatSI(value.F, "F")} across the supply of ${label(c, ref)}`,
      edits: [{ type: "setCompanion", ref, key, value }],
    },
  ];
}

/** Parts that want a capacitor of a kind, are fed, and were not told to do without. */
function wanting(c: Circuit, key: "bulkCapacitor" | "decoupling") {
  return [...c.netlist.expanded.instances.values()].flatMap((inst) => {
    const rule = inst.part.companions.find((x) => x.key === key);
    const entry = c.project.parts.find((p) => p.ref === inst.ref);
    if (!rule || !entry || inst.inserted || entry.companions?.[key] === null) return [];
    const net = c.netlist.netOf(`${inst.ref}.${rule.pin}`);
    return net?.kind === "supply" && net.V ? [{ inst, rule, net, F: evaluate(rule.F ?? 0, inst.vars) }] : [];
  });
}

/** From here on the part moves so much current that it does not work well without; a radio's bursts are as hard. */
const LARGE_F = 1e-4;
/** Half of what is asked still does most of it. */
const ENOUGH = 0.5;

const bulk: Rule = {
  rule: "power.bulk",
  says: "Strips, motors and radios draw in bursts: a large capacitor beside them bridges what the wires can't bring fast enough.",
  check: (c) =>
    wanting(c, "bulkCapacitor").flatMap(({ inst, rule, net, F }): Finding[] => {
      const there = capacitance(c, net.id);
      if (there >= F * ENOUGH) return [];
      return [
        {
          rule: "power.bulk",
          severity: rule.needed === "required" || F >= LARGE_F || inst.part.tags.includes("radio") ? "risk" : "note",
          at: [inst.ref],
          message: `${label(c, inst.ref)} wants about ${formatSI(F, "F")} across its supply: ${rule.because}. There ${there ? `is ${formatSI(there, "F")}` : "is none"}.`,
          evidence: { wanted_uF: round(F * 1e6, 1), there_uF: round(there * 1e6, 1) },
          fixes: capacitorFix(c, inst.ref, "bulkCapacitor"),
        },
      ];
    }),
};

/** Down to this a capacitor still counts as the fast one at a chip. */
const FAST_F = 40e-9;

const decoupling: Rule = {
  rule: "power.decoupling",
  says: "A bare chip takes its current in nanosecond sips: 100 nF right at each of its supply pins.",
  check: (c) => {
    const all = wanting(c, "decoupling");
    const perNet = new Map<string, number>();
    // A capacitor that was put in for a part is that part's; the others are shared out.
    const served = new Set(
      [...c.netlist.expanded.instances.values()].flatMap((i) =>
        i.inserted?.key === "decoupling" ? [i.inserted.by] : [],
      ),
    );
    const own = (net: string) => all.filter((x) => x.net.id === net && served.has(x.inst.ref)).length;
    return all.flatMap(({ inst, rule, net }): Finding[] => {
      if (served.has(inst.ref)) return [];
      const used = perNet.get(net.id) ?? 0;
      perNet.set(net.id, used + 1);
      if (count(c, net.id, FAST_F) - own(net.id) > used) return [];
      return [
        {
          rule: "power.decoupling",
          severity: rule.needed === "required" ? "risk" : "note",
          at: [inst.ref],
          message: `${label(c, inst.ref)} has no capacitor of its own at ${rule.pin}: ${rule.because}.`,
          evidence: { wanted_nF: 100 },
          fixes: capacitorFix(c, inst.ref, "decoupling"),
        },
      ];
    });
  },
};

export const capacitorRules: Rule[] = [bulk, decoupling];
