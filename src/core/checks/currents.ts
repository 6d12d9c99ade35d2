/** For the rules: currents of pins, and how they are lowered. */
import { recommendedCompanions } from "../plan/assign";
import type { Circuit } from "../circuit";
import type { Extreme, LedPath } from "../circuit/solve";
import { splitEnd } from "../project";
import { label, owner } from "./help";
import type { Fix } from "./types";

/** A fresh resistor of the right value for a light, whatever stands there now. */
export function resistorFix(c: Circuit, ref: string, id = "series-resistor"): Fix[] {
  const entry = c.project.parts.find((p) => p.ref === owner(c, ref));
  if (!entry) return [];
  const { seriesResistor: _old, ...others } = entry.companions ?? {};
  const host = c.netlist.instance(entry.ref)?.host;
  const value = recommendedCompanions(c.project, { ...entry, companions: others }, c.catalogue, host).seriesResistor;
  if (!value || value === "internal") return [];
  return [
    {
      id,
      label: `Put ${value.ohm} Ω in series with ${label(c, entry.ref)}`,
      edits: [{ type: "setCompanion", ref: entry.ref, key: "seriesResistor", value }],
    },
  ];
}

export interface PinLoad {
  ref: string;
  pin: string;
  /** What it delivers and what it takes, amperes. */
  source_A: number;
  sink_A: number;
  paths: LedPath[];
  refs: string[];
}

/** From here on a pin is shorted: its own resistance decides, of which only the usual value is known. */
export const SHORT_A = 0.5;

export const sane = (e: Extreme | null): number =>
  !e ? 0 : e.worst > SHORT_A ? Math.min(e.worst, 3 * e.typ) : e.worst;

export const pinMemo = new WeakMap<Circuit["netlist"], Map<string, PinLoad>>();

/** The worst-case current of every driving pin: as the circuit was solved, and of light grids by their wires. */
export function pinLoads(c: Circuit): Map<string, PinLoad> {
  const known = pinMemo.get(c.netlist);
  if (known) return known;
  const out = new Map<string, PinLoad>();
  const at = (key: string): PinLoad => {
    const { ref, pin } = splitEnd(key);
    const there = out.get(key) ?? { ref, pin, source_A: 0, sink_A: 0, paths: [], refs: [] };
    out.set(key, there);
    return there;
  };
  // A light without a resistor is told as such; what it would do to the pin is no second finding.
  const bare = new Set(c.leds.flatMap((p) => (p.I && p.R === 0 ? p.leds : [])));
  for (const [key, x] of c.solved.pins) {
    if (x.by.some((ref) => bare.has(ref)) || (!x.source && !x.sink)) continue;
    const load = at(key);
    load.source_A = sane(x.source);
    load.sink_A = sane(x.sink);
    load.refs.push(...x.by);
  }
  for (const p of c.leds) {
    if (!p.I || p.R === 0) continue;
    const grid = c.netlist.instance(p.ref)?.part.addresses !== undefined;
    for (const [e, side] of [
      [p.high, "source_A"],
      [p.low, "sink_A"],
    ] as const)
      if (e.kind === "pin") {
        const load = at(`${e.end.ref}.${e.end.pin}`);
        load.paths.push(p);
        if (!grid) continue;
        load[side] += p.I.max;
        load.refs.push(p.ref);
      }
  }
  pinMemo.set(c.netlist, out);
  return out;
}

/** When the light is meant to be too bright for the pin: a larger resistor that keeps the worst case inside. */
export function lessCurrent(c: Circuit, p: LedPath, limit_mA: number): Fix[] {
  const entry = c.project.parts.find((x) => x.ref === owner(c, p.ref));
  const now = c.netlist.instance(p.ref)?.vars.current_mA;
  if (!entry || now === undefined || p.V === null) return [];
  const wanted = Math.max(0.5, Math.floor(limit_mA * 0.7 * 2) / 2);
  if (wanted >= now) return [];
  const { seriesResistor: _old, ...others } = entry.companions ?? {};
  const next = { ...entry, options: { ...entry.options, current_mA: wanted }, companions: others };
  const value = recommendedCompanions(c.project, next, c.catalogue, c.netlist.instance(entry.ref)?.host).seriesResistor;
  if (!value) return [];
  return [
    {
      id: "less-current",
      label: `Run ${label(c, entry.ref)} at ${wanted} mA`,
      edits: [
        { type: "setOption", ref: entry.ref, key: "current_mA", value: wanted },
        { type: "setCompanion", ref: entry.ref, key: "seriesResistor", value },
      ],
    },
  ];
}
