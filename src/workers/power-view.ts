import { i2cBuses, lightChains, oneWires, spiBuses, uartLinks } from "../core/circuit/buses";
import type { Catalogue } from "../core/parts/catalogue";
import { backfeeds, bootStates, brightnessCap, type BootState } from "../core/checks";
import { realBaud, USUAL_BAUD } from "../core/circuit/formulas";
import { circuitOf, type Circuit } from "../core/circuit";
import {
  adviseSupplies,
  batteries,
  sourcesOn,
  stageHeat,
  supplyWays,
  supplyWires,
  type StepKind,
  type SupplyAdvice,
} from "../core/circuit/power";
import { airOf, type Project, type Sleep } from "../core/project";
import { evaluate, type Triple } from "../core/quantity";
import { hookupsOf, type Hookup } from "../core/sums";

/** What the Power station shows, as plain data. Asked for only while it is open. */
export interface RiverNode {
  id: string;
  kind: "source" | "stage" | "load";
  ref: string;
  label: string;
  says: string;
  V: Triple | null;
  typ_mA: number;
  peak_mA: number;
  limit_mA: number | null;
  /** Volts that arrive at a load, usually and at worst. */
  arrives: { typ: number; worst: number; short: boolean } | null;
  heat: { W: number; C: number; assumed: boolean } | null;
}
export interface RiverLink {
  from: string;
  to: string;
  typ_mA: number;
  peak_mA: number;
}
export interface PowerView {
  river: { nodes: RiverNode[]; links: RiverLink[] };
  batteries: {
    ref: string;
    label: string;
    capacity_mAh: number;
    duty: number;
    /** The round that the share awake follows from; null: it is a guess. */
    sleeps: { ref: string; sleep: Sleep } | null;
    average_mA: number;
    hours: { min: number; max: number };
    usable: number;
    cutoff_V: number;
    cutoffBy: string | null;
    sag_V: number;
    coldest_C: number;
    coldSag_V: number;
    points: { used: number; rest_V: number; peak_V: number }[];
  }[];
  brightness: {
    ref: string;
    label: string;
    now: number;
    cap: number | null;
    at: string;
    limit_mA: number;
    points: { b: number; mA: number }[];
  }[];
  wires: {
    from: string;
    to: string;
    typ_mA: number;
    peak_mA: number;
    cm: number;
    awg: number;
    chosen: boolean;
    drop_V: number;
    limit_mA: number;
  }[];
  /** The way of each part's supply, from its source: what every step takes and leaves, usual and worst volts. */
  ways: {
    ref: string;
    label: string;
    needs_V: number;
    typ_V: number;
    loaded_V: number;
    worst_V: number;
    steps: { kind: StepKind; label: string; typ_V: number; worst_V: number; dropTyp_V: number; dropWorst_V: number }[];
  }[];
  advice: { id: string; label: string; peak_mA: number; limit_mA: number; list: SupplyAdvice[] }[];
  i2c: {
    id: string;
    name: string;
    host: string | null;
    bus: string | null;
    clock_Hz: number;
    asked: boolean;
    V: number;
    ohm: number;
    C_pF: number;
    pins_pF: number;
    wires_pF: number;
    breadboard_pF: number;
    cm: number;
    min_ohm: number;
    max_ohm: number;
    rise_ns: number;
    rise_max_ns: number;
    members: { ref: string; label: string; addresses: string[]; max_Hz: number; V: number | null }[];
    pulls: { ref: string; ohm: number; rail: string }[];
  }[];
  spi: {
    id: string;
    name: string;
    host: string | null;
    bus: string | null;
    common_Hz: number;
    asked_Hz: number | null;
    switchesMode: boolean;
    members: {
      ref: string;
      label: string;
      mode: number;
      max_Hz: number;
      clock_Hz: number;
      cm: number;
      select: string;
      out: string;
    }[];
  }[];
  uart: {
    ref: string;
    label: string;
    host: string;
    bus: string | null;
    baud: number;
    real: number;
    error: number;
    total: number;
    how: string;
    lines: string[];
    crossed: boolean;
  }[];
  baud: {
    host: string;
    label: string;
    chip: string;
    clock_Hz: number;
    tolerance: number;
    rows: { baud: number; real: number; error: number; how: string }[];
  }[];
  chains: {
    pin: string;
    names: string;
    pixels: number;
    ram_B: number;
    ram_share: number;
    frame_ms: number;
    lost_chars: number;
  }[];
  oneWires: { pin: string; names: string; ohm: number; sink_mA: number; cm: number; round_s: number }[];
  boot: BootState[];
  dead: { from: string; into: string; driver: string; receiver: string; into_mA: number; limit_mA: number }[];
  hookups: Hookup[];
  /** Parts that share a ground, one list a ground; `id` is what the project's `isolated` lists call them. */
  grounds: { id: string; label: string }[][];
  /** Lists that were stated to stay apart, in words. */
  apart: string[][];
}

const mA = (a: number) => a * 1000;

/** Parts on each ground that more than one part shares; a part with grounds on both sides is named by its side. */
function groundsOf(c: Circuit): PowerView["grounds"] {
  const sides = (ref: string) =>
    new Set(c.netlist.instance(ref)!.part.pins.flatMap((p) => (p.role === "ground" ? [p.domain ?? "gnd"] : [])));
  return c.netlist.nets
    .filter((n) => n.kind === "ground")
    .map((n) => n.nodes.filter((x) => x.ground && !c.netlist.instance(x.ref)?.inserted))
    .filter((nodes) => new Set(nodes.map((x) => x.ref)).size > 1)
    .map((nodes) =>
      nodes.map((x) => ({
        id: sides(x.ref).size > 1 ? `${x.ref}.${x.ground}` : x.ref,
        label: c.netlist.instance(x.ref)!.label,
      })),
    );
}

/** Sources, stages and loads with what flows between them. */
function river(c: Circuit): PowerView["river"] {
  const label = (ref: string) => c.netlist.instance(ref)?.label ?? ref;
  const nodes: RiverNode[] = [];
  const links: RiverLink[] = [];
  const head = new Map<string, string>();
  const ways = new Map(supplyWays(c.netlist, c.power).map((w) => [`${w.ref}:${w.supply}`, w]));
  const arrival = (node: string): RiverNode["arrives"] => {
    const w = ways.get(node);
    return w ? { typ: w.V.typ, worst: w.V.worst, short: w.V.loaded < w.needs_V } : null;
  };
  for (const net of c.netlist.nets) {
    if (net.kind !== "supply") continue;
    const limit = c.power.limits.find((l) => l.net === net.id && l.kind === "source");
    const stage = c.power.stages.find((s) => s.to === net.id);
    const id = sourcesOn(c.netlist, net)[0] ? `source ${net.id}` : stage ? `stage ${net.id}` : null;
    if (!id) continue;
    head.set(net.id, id);
    const flow = limit?.flow ?? stage!.out;
    const heat = stage && stageHeat(c.netlist, stage, airOf(c.project).max_C);
    const through =
      stage && c.power.limits.find((l) => l.id === `${stage.ref}:${stage.converter.from}>${stage.converter.to}`);
    const ref = limit?.ref ?? stage!.ref;
    nodes.push({
      id,
      kind: limit ? "source" : "stage",
      ref,
      label: limit ? label(ref) : `${label(ref)} ${net.name}`,
      says: limit?.says ?? stage?.converter.says ?? "",
      V: net.V,
      typ_mA: mA(flow.typ),
      peak_mA: mA(flow.peak),
      limit_mA: limit ? mA(limit.limit_A) : through ? mA(through.limit_A) : null,
      arrives: null,
      heat: heat && heat.typ_W > 0.005 ? { W: heat.typ_W, C: heat.junction_C, assumed: heat.assumed } : null,
    });
  }
  for (const s of c.power.stages) {
    const [from, to] = [head.get(s.from), head.get(s.to)];
    if (from && to) links.push({ from, to, typ_mA: mA(s.in.typ), peak_mA: mA(s.in.peak) });
  }
  for (const [net, list] of c.power.own)
    for (const x of list) {
      const from = head.get(net);
      if (!from || x.flow.peak < 1e-5) continue;
      const id = `load ${x.ref} ${net}`;
      const known = nodes.find((n) => n.id === id);
      if (known) {
        known.typ_mA += mA(x.flow.typ);
        known.peak_mA += mA(x.flow.peak);
        const link = links.find((l) => l.to === id)!;
        link.typ_mA += mA(x.flow.typ);
        link.peak_mA += mA(x.flow.peak);
        continue;
      }
      nodes.push({
        id,
        kind: "load",
        ref: x.ref,
        label: x.label,
        says: c.netlist.instance(x.ref)?.part.name ?? "",
        V: null,
        typ_mA: mA(x.flow.typ),
        peak_mA: mA(x.flow.peak),
        limit_mA: null,
        arrives: arrival(x.node),
        heat: null,
      });
      links.push({ from, to: id, typ_mA: mA(x.flow.typ), peak_mA: mA(x.flow.peak) });
    }
  return { nodes, links };
}

/** Current of the tightest limit against the brightness of each strip. */
function brightness(c: Circuit): PowerView["brightness"] {
  return [...c.netlist.expanded.instances.values()].flatMap((inst) => {
    const now = inst.vars.brightness;
    const limit = c.power.limits
      .filter((l) => l.loads.some((x) => x.ref === inst.ref))
      .sort((a, b) => b.flow.peak / b.limit_A - a.flow.peak / a.limit_A)[0];
    const mAof = Object.values(inst.part.supplies)[0]?.mA;
    if (now === undefined || !limit || !mAof) return [];
    const at = (b: number) => evaluate(mAof.peak, { ...inst.vars, brightness: b });
    const mine = limit.loads.find((l) => l.ref === inst.ref)!.flow.peak;
    const scale = at(now) > 0 ? mA(mine) / at(now) : 1;
    const others = mA(limit.flow.peak - mine);
    return [
      {
        ref: inst.ref,
        label: inst.label,
        now,
        cap: brightnessCap(c, limit, inst.ref),
        at: c.netlist.instance(limit.ref)?.label ?? limit.ref,
        limit_mA: mA(limit.limit_A),
        points: Array.from({ length: 21 }, (_, i) => ({ b: i / 20, mA: others + at(i / 20) * scale })),
      },
    ];
  });
}

/** Everything of the Power station for a project; `catalogue` must hold the supplies, for advice. */
export function makePowerView(project: Project, catalogue: Catalogue): PowerView {
  const c = circuitOf(project, catalogue);
  const label = (ref: string) => c.netlist.instance(ref)?.label ?? ref;
  const supplyV = (ref: string) => {
    const inst = c.netlist.instance(ref);
    const key = inst && Object.values(inst.part.levels)[0]?.supply;
    return key ? (c.netlist.netOf(`${ref}:${key}`)?.V?.typ ?? null) : null;
  };
  return {
    river: river(c),
    batteries: batteries(c.netlist, c.power, airOf(c.project).min_C).map((b) => ({
      ref: b.battery.ref,
      label: b.battery.label,
      capacity_mAh: b.battery.capacity_Ah * 1000,
      duty: b.battery.duty,
      sleeps: b.battery.sleeps,
      average_mA: mA(b.average_A),
      hours: b.hours,
      usable: b.usable,
      cutoff_V: b.battery.cutoff_V,
      cutoffBy: b.battery.cutoffBy && label(b.battery.cutoffBy),
      sag_V: b.sag_V,
      coldest_C: b.battery.coldest_C,
      coldSag_V: b.coldSag_V,
      points: b.points,
    })),
    brightness: brightness(c),
    wires: supplyWires(c.netlist, c.power)
      .filter((w) => w.peak_A > 0.0005)
      .map((w) => ({
        from: w.from.replace(/:.*/, ""),
        to: w.to.replace(/:.*/, ""),
        typ_mA: mA(w.typ_A),
        peak_mA: mA(w.peak_A),
        cm: w.cm,
        awg: w.awg,
        chosen: w.chosen,
        drop_V: w.drop_V,
        limit_mA: mA(w.limit_A),
      }))
      .sort((a, b) => b.peak_mA - a.peak_mA),
    ways: supplyWays(c.netlist, c.power).map((w) => ({
      ref: w.ref,
      label: label(w.ref),
      needs_V: w.needs_V,
      typ_V: w.V.typ,
      loaded_V: w.V.loaded,
      worst_V: w.V.worst,
      steps: w.steps.map((s) => ({
        kind: s.kind,
        label: label(s.ref),
        typ_V: s.V.typ,
        worst_V: s.V.worst,
        dropTyp_V: s.drop.typ,
        dropWorst_V: s.drop.worst,
      })),
    })),
    advice: c.power.limits
      .filter((l) => l.kind === "source")
      .map((l) => ({
        id: l.id,
        label: label(l.ref),
        peak_mA: mA(l.flow.peak),
        limit_mA: mA(l.limit_A),
        list: adviseSupplies(c.netlist, c.power, catalogue, l.id).slice(0, 6),
      })),
    i2c: i2cBuses(c).map((b) => ({
      id: b.id,
      name: b.bus ?? b.sda.name,
      host: b.host,
      bus: b.bus,
      clock_Hz: b.clock_Hz,
      asked: b.asked,
      V: b.V,
      ohm: b.ohm,
      C_pF: b.load.total_F * 1e12,
      pins_pF: b.load.pins_F * 1e12,
      wires_pF: b.load.wires_F * 1e12,
      breadboard_pF: b.load.breadboard_F * 1e12,
      cm: b.load.cm,
      min_ohm: b.window.min_ohm,
      max_ohm: b.window.max_ohm,
      rise_ns: b.rise_s * 1e9,
      rise_max_ns: b.rise_max_s * 1e9,
      members: b.members.map((m) => ({
        ref: m.ref,
        label: m.label,
        addresses: m.addresses,
        max_Hz: m.max_Hz,
        V: supplyV(m.ref),
      })),
      pulls: b.pulls.map((p) => ({ ref: p.ref, ohm: p.ohm, rail: p.rail })),
    })),
    spi: spiBuses(c).map((b) => ({
      id: b.id,
      name: b.bus ?? b.sck.name,
      host: b.host,
      bus: b.bus,
      common_Hz: b.common_Hz,
      asked_Hz: b.asked_Hz,
      switchesMode: b.switchesMode,
      members: b.members.map((m) => ({
        ref: m.ref,
        label: m.label,
        mode: m.mode,
        max_Hz: m.max_Hz,
        clock_Hz: m.clock_Hz,
        cm: m.cm,
        select: m.csNet && m.csNet.ends.length > 1 ? m.csNet.name : m.cs ? "not wired" : "none",
        out: m.miso === null ? "has none" : m.holds ? "keeps driving" : "lets go",
      })),
    })),
    uart: uartLinks(c).map((u) => ({
      ref: u.ref,
      label: u.label,
      host: u.host,
      bus: u.bus,
      baud: u.baud,
      real: u.real.real,
      error: u.real.error,
      total: u.total,
      how: u.real.how,
      lines: u.lines.map((l) => `${l.pin} – ${l.hostPin}`),
      crossed: u.lines.every((l) => l.crossed),
    })),
    baud: c.netlist.expanded.hosts.flatMap((host) => {
      const board = c.netlist.instance(host)!.part.board!;
      return [
        {
          host,
          label: label(host),
          chip: board.chip,
          clock_Hz: board.clock_Hz,
          tolerance: board.clockTolerance ?? 0,
          rows: USUAL_BAUD.map((baud) => ({ baud, ...realBaud(board.family, board.clock_Hz, baud) })),
        },
      ];
    }),
    chains: lightChains(c).map((x) => ({
      pin: `${x.host}.${x.pin}`,
      names: x.parts.map((p) => p.label).join(", then "),
      pixels: x.pixels,
      ram_B: x.ram_B,
      ram_share: x.ram_share,
      frame_ms: x.frame_s * 1000,
      lost_chars: x.lost_chars,
    })),
    oneWires: oneWires(c).map((x) => ({
      pin: `${x.host}.${x.pin}`,
      names: x.parts.map((p) => p.label).join(", "),
      ohm: x.ohm,
      sink_mA: mA(x.sink_A),
      cm: x.cm,
      round_s: x.round_s,
    })),
    boot: bootStates(c),
    dead: backfeeds(c).map((x) => ({
      from: label(x.from),
      into: label(x.into),
      driver: `${x.v.driver.ref}.${x.v.driver.pin}`,
      receiver: `${x.v.receiver.ref}.${x.v.receiver.pin}`,
      into_mA: x.into_mA,
      limit_mA: x.limit_mA,
    })),
    hookups: hookupsOf(c),
    grounds: groundsOf(c),
    apart: c.project.isolated.map((list) => list.map((m) => label(m.split(".")[0]!))),
  };
}
