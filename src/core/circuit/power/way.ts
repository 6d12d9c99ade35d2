import { evaluate, type Triple } from "../../quantity";
import type { Net, Netlist } from "../netlist";
import { airOf } from "../../project";
import { sourcesOn } from "./at";
import { inCold } from "./cold";
import { converterOutput, type PowerReport } from "./tree";
import { entryOf, supplyTrees, type Branch } from "./wires";

/**
 * A USB cable there and back, ohms: 0.1 to 0.25 Ω a conductor (USB 2.0, 7.2.2: at most 125 mV a conductor at 500 mA).
 */
export const CABLE_OHM: Triple = { min: 0.2, typ: 0.35, max: 0.5 };

/** Usual: typical source at the usual current. Loaded: typical source at the peak. Worst: lowest source at the peak. */
export interface Volts {
  typ: number;
  loaded: number;
  worst: number;
}

export type StepKind = "source" | "inside" | "cable" | "converter" | "wire";

/** A step on the way of a supply: what it is, what it takes and what is left behind it, volts. */
export interface WayStep {
  kind: StepKind;
  /** The part that the step belongs to: the source, the cable's far end, the board with the regulator, the wire's end. */
  ref: string;
  drop: Volts;
  V: Volts;
}

/** How a part's supply comes to it, from the source on. */
export interface SupplyWay {
  ref: string;
  supply: string;
  /** What the part asks for at least, volts. */
  needs_V: number;
  steps: WayStep[];
  V: Volts;
  /** The lowest volts of the rail itself, before anything is lost under load. */
  rail_V: number;
}

const less = (a: Volts, b: Volts): Volts => ({
  typ: a.typ - b.typ,
  loaded: a.loaded - b.loaded,
  worst: a.worst - b.worst,
});
/** What resistance takes: its usual value at the usual current and at the peak, its largest at the peak. */
const lost = (ohm: { typ: number; max: number }, typ_A: number, peak_A: number): Volts => ({
  typ: ohm.typ * typ_A,
  loaded: ohm.typ * peak_A,
  worst: ohm.max * peak_A,
});

interface Reached {
  V: Volts;
  steps: WayStep[];
}

const NO_CABLE = { typ: 0, max: 0 };

class Ways {
  private nets: ReadonlyMap<string, Net>;
  private starts = new Map<string, Reached | null>();
  private trees: ReadonlyMap<string, Branch[]>;
  constructor(
    private n: Netlist,
    private power: PowerReport,
  ) {
    this.nets = new Map(n.nets.map((x) => [x.id, x]));
    this.trees = supplyTrees(n, power);
  }

  /** At a pin or node of a net: down its tree from where it is fed. */
  at(net: Net, end: string): Reached | null {
    const start = this.start(net);
    const up = new Map((this.trees.get(net.id) ?? []).map((b) => [b.to, b]));
    const path: Branch[] = [];
    for (let here = end; up.has(here); here = up.get(here)!.from) path.unshift(up.get(here)!);
    if (!start || (path[0]?.from ?? end) !== entryOf(this.n, this.power, net)) return start;
    const plug = sourcesOn(this.n, net)[0]?.source.plug;
    return path.reduce((r, b): Reached => {
      const ohm = b.cable ? (plug === "USB" ? CABLE_OHM : NO_CABLE) : { typ: b.wire?.ohm ?? 0, max: b.wire?.ohm ?? 0 };
      if (!b.cable && !b.wire) return r;
      const drop = lost(ohm, b.typ_A, b.peak_A);
      const V = less(r.V, drop);
      return {
        V,
        steps: [...r.steps, { kind: b.cable ? "cable" : "wire", ref: b.to.split(/[.:]/)[0]!, drop, V }],
      };
    }, start);
  }

  /** Where a net is fed: the source less what it keeps inside, or what a converter makes of what reaches it. */
  private start(net: Net): Reached | null {
    const known = this.starts.get(net.id);
    if (known !== undefined) return known;
    this.starts.set(net.id, null);
    const made = this.fromSource(net) ?? this.fromStage(net);
    this.starts.set(net.id, made);
    return made;
  }

  private fromSource(net: Net): Reached | null {
    const s = sourcesOn(this.n, net)[0];
    const flow = this.power.limits.find((l) => l.net === net.id && l.kind === "source")?.flow;
    if (!s || !net.V || !flow) return null;
    const E: Volts = { typ: net.V.typ, loaded: net.V.typ, worst: net.V.min };
    const first: Reached = {
      V: E,
      steps: [{ kind: "source", ref: s.ref, drop: { typ: 0, loaded: 0, worst: 0 }, V: E }],
    };
    const ohm = evaluate(s.source.rint_ohm ?? 0, s.inst.vars);
    if (!ohm) return first;
    const cold = s.source.chemistry ? inCold(s.source.chemistry, airOf(this.n.expanded.project).min_C).times : 1;
    const drop = lost({ typ: ohm, max: ohm * cold }, flow.typ, flow.peak);
    const V = less(E, drop);
    return { V, steps: [...first.steps, { kind: "inside", ref: s.ref, drop, V }] };
  }

  private fromStage(net: Net): Reached | null {
    const stage = this.power.stages.find((s) => s.to === net.id);
    const from = stage && this.nets.get(stage.from);
    const before = from && this.at(from, stage.fromNode);
    if (!stage || !before) return null;
    const vars = this.n.instance(stage.ref)?.vars;
    const out = (v: number) => converterOutput(stage.converter, { min: v, typ: v, max: v }, vars);
    const V: Volts = { typ: out(before.V.typ).typ, loaded: out(before.V.loaded).typ, worst: out(before.V.worst).min };
    const drop = less(before.V, V);
    return { V, steps: [...before.steps, { kind: "converter", ref: stage.ref, drop, V }] };
  }
}

/**
 * The volts along the way of every supply, from its source through cable, regulators and wires to the part, with what each
 * step takes under load: R·I there and back, what cells keep inside (more in the cold), what a regulator needs. Empty for
 * parts that nothing feeds.
 */
export function supplyWays(n: Netlist, power: PowerReport): SupplyWay[] {
  const ways = new Ways(n, power);
  return [...n.expanded.instances.values()].flatMap((inst) =>
    inst.inserted
      ? []
      : Object.entries(inst.part.supplies).flatMap(([key, s]): SupplyWay[] => {
          const node = `${inst.ref}:${key}`;
          const net = n.netOf(node);
          if (s.source || !s.mA || net.kind !== "supply" || !net.V) return [];
          const reached = ways.at(net, node);
          if (!reached) return [];
          const needs_V = evaluate(s.V.min, inst.vars);
          return [{ ref: inst.ref, supply: key, needs_V, ...reached, rail_V: net.V.min }];
        }),
  );
}
