/** For the rules: what several rules about supplies name and mend. */
import type { Circuit } from "../circuit";
import { evaluate } from "../quantity";
import type { PowerLimit, Stage } from "../circuit/power";
import type { Instance, Net } from "../circuit/netlist";
import { label, linkedRefs, mA, round, wireUp } from "./help";
import { ownSupplyFix, regulatorFix } from "./supply-fixes";
import { swappedSupplies } from "./reversed";
import type { Fix } from "./types";

export const isLinked = (c: Circuit, inst: Instance) =>
  inst.inserted !== undefined || linkedRefs(c.project).has(inst.ref);

/**
 * The largest brightness at which this share of a limit holds: cap = (limit − everything else) / what full brightness adds.
 */
export function brightnessCap(c: Circuit, limit: PowerLimit, ref: string, share = 1): number | null {
  const inst = c.netlist.instance(ref);
  if (!inst || inst.vars.brightness === undefined) return null;
  const key = Object.keys(inst.part.supplies)[0]!;
  const peak = inst.part.supplies[key]?.mA?.peak ?? 0;
  const at = (b: number) => evaluate(peak, { ...inst.vars, brightness: b }) / 1000;
  const now = at(inst.vars.brightness);
  const mine = limit.loads.find((l) => l.ref === ref)?.flow.peak ?? now;
  const others = limit.flow.peak - mine;
  const scale = now > 0 ? mine / now : 1;
  const cap = ((limit.limit_A * share - others) / scale - at(0)) / (at(1) - at(0));
  return Math.max(0, Math.floor(Math.min(1, cap) * 100) / 100);
}

export const limitId = (s: Stage) => `${s.ref}:${s.converter.from}>${s.converter.to}`;

export function overloadFixes(c: Circuit, limit: PowerLimit, share = 1): Fix[] {
  const fixes: Fix[] = [];
  // Only what hangs on an overloaded regulator itself gains by one of its own; a tight one is kept, for its even levels.
  const rail = share < 1 ? undefined : c.power.stages.find((s) => limitId(s) === limit.id)?.to;
  for (const load of limit.loads.slice(0, 3)) {
    const inst = c.netlist.instance(load.ref);
    if (!inst || inst.part.board) continue;
    const cap = brightnessCap(c, limit, load.ref, share);
    if (cap !== null && cap >= 0.02 && cap < 1)
      fixes.push({
        id: `brightness-${load.ref}`,
        label: `Cap ${label(c, load.ref)} at ${Math.round(cap * 100)} % brightness`,
        edits: [{ type: "setOption", ref: load.ref, key: "brightness", value: cap }],
      });
    if (load.flow.peak > Math.min(0.1, limit.limit_A * 0.2))
      fixes.push(
        ...[...ownSupplyFix(c, load.ref, limit.net), ...regulatorFix(c, load.ref, rail)].map((f) => ({
          ...f,
          id: `${f.id}-${load.ref}`,
        })),
      );
  }
  return fixes;
}

export const top = (limit: PowerLimit, c: Circuit) =>
  limit.loads
    .slice(0, 3)
    .map((l) => `${label(c, l.ref)} ${mA(l.flow.peak)}`)
    .join(", ");

export const loadEvidence = (l: PowerLimit) => ({
  peak_mA: round(l.flow.peak * 1000, 1),
  typical_mA: round(l.flow.typ * 1000, 1),
  limit_mA: round(l.limit_A * 1000, 1),
});

export const others = (c: Circuit, l: PowerLimit) =>
  l.loads.reduce((s, x) => s + (c.netlist.instance(x.ref)?.part.board ? 0 : x.flow.peak), 0);

export const wireFix = (c: Circuit, ref: string, words: string): Fix[] => {
  const edits = wireUp(c, ref);
  return edits.length ? [{ id: "wire-up", label: words, edits }] : [];
};

/** A part or supply with plus and minus exchanged is told by `part.reversed`. */
export const swapped = (c: Circuit, n: Net) => {
  const refs = swappedSupplies(c).map((x) => x.ref);
  return n.nodes.some((x) => refs.includes(x.ref));
};
