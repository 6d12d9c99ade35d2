import { findPin } from "../../parts/catalogue";
import type { Circuit } from "../../circuit";
import { evaluate, formatV, type Triple } from "../../quantity";
import type { Instance, Net } from "../../circuit/netlist";
import { label, round } from "../help";
import { outletsFor, ownSupply, regulatorFix } from "../supply-fixes";
import { droppedOut } from "../regulators";
import { splitEnd } from "../../project";
import { clashingNets } from "../sources";
import { supplyRest } from "../rests";
import type { Found, Fix, Rule } from "../types";

/**
 * A rail that a part feeds to itself, such as the 5 V pin behind a board's own USB diode: its lower limit is for those who
 * feed it from outside, and the part's regulators are judged by their dropout.
 */
function feedsItself(c: Circuit, inst: Instance, key: string): boolean {
  const net = c.netlist.netOf(`${inst.ref}:${key}`);
  const own = inst.part.converters.some((x) => x.to === key && c.netlist.netOf(`${inst.ref}:${x.from}`).V);
  return (
    own &&
    net.nodes.every((n) => {
      if (n.ref === inst.ref || !n.supply) return true;
      const part = c.netlist.instance(n.ref)!.part;
      return !part.supplies[n.supply]?.source && !part.converters.some((x) => x.to === n.supply);
    })
  );
}

export const powerRange: Rule = {
  rule: "power.range",
  says: "A part's supply must lie inside its range, at both ends of the source's tolerance.",
  check: (c) => {
    const out: Found[] = [];
    const dropped = droppedOut(c);
    const shorted = new Set(clashingNets(c).map((x) => x.net.id));
    // A short and a regulator that can't keep up have rules of their own.
    const told = (ref: string, net: Net) =>
      net.kind === "ground" ||
      shorted.has(net.id) ||
      dropped.some((d) => d.stage.to === net.id || (d.stage.ref === ref && d.stage.from === net.id));
    for (const inst of c.netlist.expanded.instances.values())
      for (const [key, s] of Object.entries(inst.part.supplies)) {
        const V = c.netlist.netOf(`${inst.ref}:${key}`).V;
        const wired = inst.part.pins.some((p) => p.supply === key) && !s.source;
        const net = c.netlist.netOf(`${inst.ref}:${key}`);
        if (!V || !wired) continue;
        const [min, max] = [evaluate(s.V.min, inst.vars), evaluate(s.V.max, inst.vars)];
        const over = V.max > (s.absMax_V ?? max) + 1e-9;
        const low = V.min < min - 1e-9 && !feedsItself(c, inst, key);
        if (told(inst.ref, net) && (net.kind === "ground" || shorted.has(net.id) || V.max <= max)) continue;
        if (V.max <= max + 1e-9 && !low) continue;
        const pin = inst.part.pins.find((p) => p.supply === key)!;
        // Where only a low source falls short, it works on most days.
        const usual = V.typ < min;
        out.push({
          rule: "power.range",
          severity: over ? "stop" : V.max > max || !usual ? "risk" : "fault",
          at: [`${inst.ref}.${pin.label}`],
          message: `${label(c, inst.ref)} gets ${formatV(V.min)} to ${formatV(V.max)} on ${pin.label}; it wants ${formatV(min)} to ${formatV(max)}${over ? " and may be destroyed" : low && !usual ? ". So it is when the source is low" : ""}.`,
          evidence: { low_V: round(V.min), high_V: round(V.max), min_V: min, max_V: max },
          rests: [supplyRest(inst.ref, key, over && s.absMax_V !== undefined ? "absMax_V" : "V", pin.label)],
          fixes: () => rangeFixes(c, inst, key),
        });
      }
    return out;
  },
};

/** Rails of one nominal voltage: what moves from one to the other keeps its levels. */
const ALIKE_V = 0.5;

/** Supply pins on an outlet that fit another of the same nominal voltage: they stay together, or their levels part. */
function neighbours(c: Circuit, outlet: string, V: Triple): string[] {
  const here = c.netlist.netOf(outlet).V;
  if (!here || Math.abs(here.typ - V.typ) > ALIKE_V) return [];
  return c.project.links.flatMap((l) => {
    const end = l.from === outlet ? l.to : l.to === outlet ? l.from : null;
    if (!end) return [];
    const { ref, pin } = splitEnd(end);
    const inst = c.netlist.instance(ref);
    const def = inst && findPin(inst.part, pin);
    const range = def?.role === "supply-in" && !inst?.part.board ? inst?.part.supplies[def.supply!]?.V : undefined;
    if (!inst || !range) return [];
    return evaluate(range.min, inst.vars) <= V.min && evaluate(range.max, inst.vars) >= V.max ? [end] : [];
  });
}

/** More than this is much for a board's own regulator, mA. */
const HEAVY_MA = 200;
/** What every 5 V adapter keeps to. */
const ADAPTER_V: Triple = { min: 4.75, typ: 5, max: 5.25 };

/** Another outlet whose range fits, of the board or a source beside it, else an adapter; for all that hangs on the present one. */
function rangeFixes(c: Circuit, inst: Instance, key: string): Fix[] {
  const pin = inst.part.pins.find((p) => p.role === "supply-in" && p.supply === key);
  const host = inst.host ? c.netlist.instance(inst.host) : undefined;
  if (!pin || !host || inst.part.board) return [];
  const range = inst.part.supplies[key]!.V;
  const [min, max] = [evaluate(range.min, inst.vars), evaluate(range.max, inst.vars)];
  const end = `${inst.ref}.${pin.label}`;
  const linksAt = (e: string) => c.project.links.filter((l) => l.from === e || l.to === e);
  const from = linksAt(end).map((l) => (l.from === end ? l.to : l.from))[0];
  const to = outletsFor(c, host, min, max)[0];
  const own =
    !to && min <= ADAPTER_V.min && max >= ADAPTER_V.max ? ownSupply(c, inst.ref, c.netlist.netOf(end).id) : null;
  const V = to ? c.netlist.netOf(to).V : ADAPTER_V;
  const goal = to ?? own?.end;
  if (!goal || !V) return regulatorFix(c, inst.ref, c.netlist.netOf(end).id);
  const ends = [...new Set([end, ...(from ? neighbours(c, from, V) : [])])];
  const moved = ends.filter((e) => !own || e !== end);
  // What draws much may be more than the other outlet gives.
  const heavy = evaluate(inst.part.supplies[key]!.mA?.peak ?? 0, inst.vars) > HEAVY_MA;
  return [
    {
      id: "other-rail",
      label: `Feed ${ends.join(", ")} from ${own?.words ?? goal}`,
      edits: [
        ...(own?.edits ?? []),
        ...moved.flatMap((e) => linksAt(e).map((l) => ({ type: "removeLink" as const, from: l.from, to: l.to }))),
        ...moved.map((e) => ({ type: "addLink" as const, link: { from: e, to: goal } })),
      ],
    },
    ...(heavy && to ? regulatorFix(c, inst.ref, c.netlist.netOf(end).id) : []),
  ];
}
