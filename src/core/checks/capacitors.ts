/** For the rules: capacitors that are wanted and missing. */
import { recommendedCompanions } from "../plan/assign";
import type { Circuit } from "../circuit";
import { evaluate, formatSI } from "../quantity";
import { label } from "./help";
import type { Fix } from "./types";

/** The value that the planner would take, from what the person owns. */
export function capacitorFix(c: Circuit, ref: string, key: "bulkCapacitor" | "decoupling"): Fix[] {
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
export function wanting(c: Circuit, key: "bulkCapacitor" | "decoupling") {
  return [...c.netlist.expanded.instances.values()].flatMap((inst) => {
    const rule = inst.part.companions.find((x) => x.key === key);
    const entry = c.project.parts.find((p) => p.ref === inst.ref);
    if (!rule || !entry || inst.inserted || entry.companions?.[key] === null) return [];
    const net = c.netlist.netOf(`${inst.ref}.${rule.pin}`);
    return net?.kind === "supply" && net.V ? [{ inst, rule, net, F: evaluate(rule.F ?? 0, inst.vars) }] : [];
  });
}
