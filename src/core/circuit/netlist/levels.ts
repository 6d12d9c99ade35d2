import { evaluate, type Triple } from "../../quantity";
import type { Level } from "../../parts/catalogue";
import { solveNodes, type Branch } from "../formulas";
import { outputLine } from "./output";
import type { Net, NetElement, NetEnd, Netlist } from "./types";

/** One driver (or pulled-up open-drain line) against one receiver: worst-case volts and margins. */
export interface LevelVerdict {
  net: Net;
  driver: {
    ref: string;
    pin: string;
    net: string;
    supplyNet: string;
    V: Triple;
    how: "push-pull" | "pull-up" | "contact" | "diode";
  };
  receiver: { ref: string; pin: string; net: string; supplyNet: string; V: Triple };
  /** Volts that reach the receiver: guaranteed high, guaranteed low, highest possible. */
  high_V: number;
  low_V: number;
  highest_V: number;
  VIH: number;
  VIL: number;
  ceiling: number;
  marginHigh: number;
  marginLow: number;
  /** The margins at usual supplies: where they hold, only a corner of the tolerances fails. */
  usualHigh: number;
  usualLow: number;
  /** An analogue signal has no thresholds: only the ceiling is judged, the margins are infinite. */
  analog: boolean;
}

/** Rails of the same nominal voltage move together closely enough to be compared at their nominal value. */
const SAME_NOMINAL_V = 0.25;

const ANALOG_NEEDS = new Set(["adc", "dac"]);

/** What a pin's clamp stands for a while where the data says nothing, mA: the usual rating of logic inputs. */
export const INJECTION_MA = 20;
/** Forward voltage of the clamp through which a signal feeds a dead part. */
export const CLAMP_V = 0.6;
/** A clamp to its own supply is what lets a signal into a part that is off; a tolerant input has none. */
export const clampsToSupply = (level: Level | undefined) => typeof level?.absMax === "string" && /V/.test(level.absMax);

interface Port {
  end: NetEnd;
  net: Net;
  level: Level;
  supplyNet: Net;
  V: Triple;
  vars: Record<string, number>;
}

function port(n: Netlist, net: Net, end: NetEnd): Port | null {
  const level = n.level(end.ref, end.pin);
  if (!level) return null;
  const supplyNet = n.netOf(`${end.ref}:${level.supply}`);
  // A supply that is joined to ground says nothing about levels; the short speaks for itself.
  const V = supplyNet.kind === "ground" ? null : supplyNet.V;
  return V && { end, net, level, supplyNet, V, vars: n.instance(end.ref)!.vars };
}

/** The signal nets that hang together through resistors, and the resistors among them and to the rails. */
function component(n: Netlist, start: Net, byId: Map<string, Net>, at: Map<string, NetElement[]>) {
  const nets = new Set([start.id]);
  const list = [start.id];
  const branches = new Set<NetElement>();
  for (const id of list)
    for (const el of at.get(id) ?? []) {
      branches.add(el);
      for (const other of [el.a, el.b]) {
        const o = byId.get(other);
        if (!o || nets.has(other) || o.kind === "supply" || o.kind === "ground") continue;
        nets.add(other);
        list.push(other);
      }
    }
  return { nets, branches: [...branches] };
}

type Pick = "min" | "typ" | "max";

/**
 * The usual case in closed form: every resistor leads from the net straight to something that is held. Then the voltage is
 * the mean of those, weighted by conductance, and it is worst when each resistor that pulls that way is at its smallest and
 * each that pulls back at its largest. Undefined when another net hangs in between; NaN when nothing holds it.
 */
function weighted(
  branches: NetElement[],
  held: ReadonlyMap<string, number>,
  at: string,
  want: "low" | "high",
): number | undefined {
  const pulls: { V: number; ohm: number; t: number }[] = [];
  for (const b of branches) {
    const [here, far] = b.a === at ? [b.a, b.b] : [b.b, b.a];
    const V = held.get(far);
    if (here !== at || V === undefined) return undefined;
    pulls.push({ V, ohm: Math.max(b.ohm!, 1e-6), t: b.tolerance ?? 0 });
  }
  if (!pulls.length) return NaN;
  const mean = (sign: (V: number) => number) => {
    let [top, sum] = [0, 0];
    for (const p of pulls) {
      const g = 1 / (p.ohm * (1 + sign(p.V) * p.t));
      top += p.V * g;
      sum += g;
    }
    return top / sum;
  };
  // Which side a rail pulls to can change with the worst case itself: twice settles it.
  let v = mean(() => 0);
  for (let i = 0; i < 2; i++) {
    const now = v;
    v = mean((V) => (V > now === (want === "high") ? -1 : 1));
  }
  return v;
}

/** Voltage at a net with the driver's net held at `drive` (null: released) and the rails at one end of their range. */
function voltage(
  byId: Map<string, Net>,
  branches: NetElement[],
  driverNet: string | null,
  drive: number | null,
  at: string,
  rails: Pick,
  want: "low" | "high",
): number {
  if (driverNet === at && drive !== null) return drive;
  const held = new Map<string, number>();
  for (const b of branches)
    for (const id of [b.a, b.b]) {
      const net = byId.get(id);
      if (net?.V && (net.kind === "supply" || net.kind === "ground")) held.set(id, net.V[rails]);
    }
  if (driverNet && drive !== null) held.set(driverNet, drive);
  const alone = weighted(branches, held, at, want);
  if (alone !== undefined) return alone;
  const list = (signs: number[]): Branch[] =>
    branches.map((b, i) => ({ a: b.a, b: b.b, ohm: b.ohm! * (1 + (signs[i] ?? 0) * (b.tolerance ?? 0)) }));
  const corners = branches.length <= 4 ? 2 ** branches.length : 1;
  let worst = want === "low" ? Infinity : -Infinity;
  for (let c = 0; c < corners; c++) {
    const signs = corners === 1 ? [] : branches.map((_, i) => (c & (1 << i) ? 1 : -1));
    const v = solveNodes(list(signs), held).get(at) ?? NaN;
    if (Number.isNaN(v)) return NaN;
    worst = want === "low" ? Math.min(worst, v) : Math.max(worst, v);
  }
  return worst;
}

/** Current in amperes that the resistors draw from a driver net held at `drive`. */
function loadCurrent(byId: Map<string, Net>, branches: NetElement[], driverNet: string, drive: number): number {
  let sum = 0;
  for (const b of branches) {
    const other = b.a === driverNet ? b.b : b.b === driverNet ? b.a : null;
    if (!other) continue;
    const fixed = byId.get(other);
    const rail = fixed?.V && fixed.kind !== "signal" && fixed.kind !== "bus-line" ? fixed.V.typ : null;
    const far = rail ?? voltage(byId, branches, driverNet, drive, other, "typ", "low");
    if (!Number.isNaN(far)) sum += (drive - far) / b.ohm!;
  }
  return Math.abs(sum);
}

/**
 * Every driver against every receiver that its signal reaches through wires and resistors, at the worst case of
 * supplies and resistor tolerances. Two pins on one supply net see the same voltage; rails of one nominal voltage are
 * compared at nominal for the ceiling; others at the unfavourable ends. Open-drain lines are judged at their pull-ups.
 * Nets without a fed supply or without any pull are left to the rules that say so.
 */
export function levelVerdicts(n: Netlist): LevelVerdict[] {
  const byId = new Map(n.nets.map((x) => [x.id, x]));
  const at = new Map<string, NetElement[]>();
  for (const el of n.elements)
    if (el.kind === "resistor" && el.a !== el.b) for (const id of [el.a, el.b]) at.set(id, [...(at.get(id) ?? []), el]);
  const out: LevelVerdict[] = [];
  const measured = new Set(
    n.bindings
      .filter((b) => ANALOG_NEEDS.has(b.need.kind))
      .flatMap((b) => [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`]),
  );
  const isAnalog = (d: Port, r: Port) =>
    d.level.output === "analog" ||
    r.level.input === "analog" ||
    measured.has(`${r.end.ref}.${r.end.pin}`) ||
    measured.has(`${d.end.ref}.${d.end.pin}`);
  for (const net of n.nets) {
    if (net.kind === "supply" || net.kind === "ground") continue;
    for (const driverEnd of net.ends) {
      if (driverEnd.as !== "driver" && driverEnd.as !== "both") continue;
      const d = port(n, net, driverEnd);
      if (!d || d.level.output === "none") continue;
      const open =
        d.level.output === "open-drain" ||
        (driverEnd.as === "both" && net.kind === "bus-line" && driverEnd.def.need?.kind !== "spi");
      const part = component(n, net, byId, at);
      const pulled = part.branches.some((b) => [b.a, b.b].some((x) => byId.get(x)?.kind === "supply"));
      if (open && !pulled) continue;
      for (const id of part.nets)
        for (const end of byId.get(id)?.ends ?? []) {
          if ((end.as !== "receiver" && end.as !== "both") || end === driverEnd || end.ref === driverEnd.ref) continue;
          const r = port(n, byId.get(id)!, end);
          if (!r || r.level.input === "none") continue;
          const v = verdict(d, r, open, byId, part.branches, isAnalog(d, r));
          if (v) out.push(v);
        }
    }
    out.push(...passiveVerdicts(n, net, byId, at, measured));
  }
  out.push(...throughVerdicts(n, byId));
  return out;
}

/** A junction's voltage falls by about this for every tenth of its current (two thermal voltages times ln 10). */
const PER_DECADE_V = 0.12;
/** The current for which data sheets give a forward voltage, amperes. */
const RATED_A = 0.01;
/** Forward voltage at a small current, from the typical figure at 10 mA; never below a fifth of a volt. */
export const dropAt = (Vf: Triple, A: number) =>
  A >= RATED_A ? Vf.typ : Math.max(0.2, Vf.typ - PER_DECADE_V * Math.log10(RATED_A / Math.max(A, 1e-7)));

interface Way {
  net: Net;
  /** Forward voltages on the way, in the direction that pulls the receiver low (`down`) or lifts it (`up`). */
  drops: Triple[];
  ohm: number;
  down: boolean;
  up: boolean;
  hops: number;
}

/**
 * Levels that arrive through a diode, a light or a closed contact, as in grids of keys: the driver's low plus the drop on
 * the way against VIL, where a pull-up holds the receiver; its high less the drop against VIH, where a pull-down does.
 */
function throughVerdicts(n: Netlist, byId: Map<string, Net>): LevelVerdict[] {
  const at = new Map<string, NetElement[]>();
  const passing = new Set(["diode", "led", "contact", "resistor"]);
  for (const el of n.elements)
    if (passing.has(el.kind)) for (const id of new Set([el.a, el.b])) at.set(id, [...(at.get(id) ?? []), el]);
  const isRail = (x: Net | undefined) => x?.kind === "supply" || x?.kind === "ground";
  const out: LevelVerdict[] = [];
  for (const net of n.nets) {
    const here = at.get(net.id) ?? [];
    const receivers = net.ends.filter((e) => e.as === "receiver");
    if (
      isRail(net) ||
      !receivers.length ||
      !here.some((e) => e.kind !== "resistor" && !isRail(byId.get(e.a === net.id ? e.b : e.a)))
    )
      continue;
    if (net.ends.some((e) => e.as === "driver")) continue;
    const pulls = here.flatMap((e) => {
      const rail = e.kind === "resistor" ? byId.get(e.a === net.id ? e.b : e.a) : undefined;
      return rail && isRail(rail) && rail.V ? [{ rail, ohm: e.ohm! }] : [];
    });
    const lift = pulls.find((x) => x.rail.kind === "supply");
    const sink = pulls.find((x) => x.rail.kind === "ground");
    if (!lift && !sink) continue;
    const seen = new Set([net.id]);
    const queue: Way[] = [{ net, drops: [], ohm: 0, down: true, up: true, hops: 0 }];
    for (const way of queue) {
      const driverEnd = way.hops ? way.net.ends.find((e) => e.as === "driver") : undefined;
      const d = driverEnd && port(n, way.net, driverEnd);
      if (d && d.level.output === "push-pull")
        for (const end of receivers) {
          const r = port(n, net, end);
          if (!r || r.level.VIH === undefined || r.level.input === "none") continue;
          const pull = way.down && lift ? lift : way.up && sink ? sink : null;
          if (!pull) continue;
          const low = pull === lift;
          const from = low ? pull.rail.V!.max : d.V.min;
          const I = from / (pull.ohm + way.ohm);
          const lost = way.drops.reduce((sum, x) => sum + dropAt(x, I), 0) + I * way.ohm;
          const VOL = evaluate(d.level.VOL ?? 0, { ...d.vars, V: d.V.min, I }) + lost;
          const VOH = evaluate(d.level.VOH ?? "V", { ...d.vars, V: d.V.min, I }) - lost;
          const high = low ? pull.rail.V!.min : VOH;
          const VIH = evaluate(r.level.VIH, { ...r.vars, V: r.V.min });
          const VIL = evaluate(r.level.VIL ?? 0, { ...r.vars, V: r.V.min });
          out.push({
            net,
            driver: {
              ref: d.end.ref,
              pin: d.end.pin,
              net: way.net.id,
              supplyNet: d.supplyNet.id,
              V: d.V,
              how: "diode",
            },
            receiver: { ref: end.ref, pin: end.pin, net: net.id, supplyNet: r.supplyNet.id, V: r.V },
            high_V: high,
            low_V: low ? VOL : 0,
            highest_V: Math.min(low ? pull.rail.V!.max : d.V.max, r.V.max),
            VIH,
            VIL,
            ceiling: evaluate(r.level.absMax, { ...r.vars, V: r.V.max }),
            marginHigh: high - VIH,
            marginLow: low ? VIL - VOL : Infinity,
            usualHigh: high - VIH,
            usualLow: low ? VIL - VOL : Infinity,
            analog: false,
          });
        }
      if (way.hops >= 3) continue;
      for (const el of at.get(way.net.id) ?? []) {
        const next = byId.get(el.a === way.net.id ? el.b : el.a);
        if (!next || seen.has(next.id) || isRail(next) || (el.kind === "resistor" && el.internal)) continue;
        // Anode at the receiver: the driver can pull it down; anode at the driver: it can lift it.
        const diode = el.kind === "diode" || el.kind === "led";
        const toDriver = el.a === way.net.id;
        const down = way.down && (!diode || toDriver);
        const up = way.up && (!diode || !toDriver);
        if (!down && !up) continue;
        seen.add(next.id);
        queue.push({
          net: next,
          drops: [...way.drops, ...(diode && el.Vf ? [el.Vf] : [])],
          ohm: way.ohm + (el.ohm ?? 0),
          down,
          up,
          hops: way.hops + 1,
        });
      }
    }
  }
  return out;
}

/**
 * A net that nobody drives but a pull or a contact holds: an open contact reads the pull's rail, a closed one the rail
 * on its far side. Only said where that rail is not the receiver's own supply.
 */
function passiveVerdicts(
  n: Netlist,
  net: Net,
  byId: Map<string, Net>,
  at: Map<string, NetElement[]>,
  measured: ReadonlySet<string>,
): LevelVerdict[] {
  const part = component(n, net, byId, at);
  const drives = (e: NetEnd) => (e.as === "driver" || e.as === "both") && n.level(e.ref, e.pin)?.output !== "none";
  if ([...part.nets].some((id) => byId.get(id)?.ends.some(drives))) return [];
  const rail = (el: NetElement) => [el.a, el.b].map((id) => byId.get(id)).find((x) => x?.kind === "supply" && x.V);
  const pulls = part.branches.filter((b) => rail(b));
  const contacts = n.elements.filter((e) => e.kind === "contact" && (e.a === net.id || e.b === net.id) && rail(e));
  const feeders = [...contacts, ...pulls];
  if (!feeders.length) return [];
  return net.ends.flatMap((end): LevelVerdict[] => {
    if (end.as !== "receiver") return [];
    const r = port(n, net, end);
    if (!r || r.level.input === "none" || feeders.every((f) => rail(f)!.id === r.supplyNet.id)) return [];
    const by = feeders.find((f) => rail(f)!.id !== r.supplyNet.id)!;
    const from = rail(by)!;
    const lift = (pick: Pick, want: "low" | "high") => voltage(byId, part.branches, null, null, net.id, pick, want);
    const pulled = pulls.length ? lift("max", "high") : 0;
    const highest = Math.max(pulled, ...contacts.map((c) => rail(c)!.V!.max));
    const high = contacts.length ? Math.min(...contacts.map((c) => rail(c)!.V!.min)) : lift("min", "low");
    if (Number.isNaN(highest) || Number.isNaN(high)) return [];
    const sameNominal = Math.abs(from.V!.typ - r.V.typ) <= SAME_NOMINAL_V;
    const VIH = evaluate(r.level.VIH ?? 0, { ...r.vars, V: sameNominal ? r.V.min : r.V.max });
    const analog = r.level.VIH === undefined || measured.has(`${end.ref}.${end.pin}`);
    const pin = net.ends.find((e) => e.ref === by.ref)?.pin ?? from.name;
    return [
      {
        net,
        driver: {
          ref: by.ref,
          pin,
          net: net.id,
          supplyNet: from.id,
          V: from.V!,
          how: by.kind === "contact" ? "contact" : "pull-up",
        },
        receiver: { ref: end.ref, pin: end.pin, net: net.id, supplyNet: r.supplyNet.id, V: r.V },
        high_V: high,
        low_V: 0,
        highest_V: sameNominal ? Math.min(highest, r.V.max) : highest,
        VIH,
        VIL: evaluate(r.level.VIL ?? 0, { ...r.vars, V: r.V.min }),
        ceiling: evaluate(r.level.absMax, { ...r.vars, V: sameNominal ? r.V.typ : r.V.min }),
        marginHigh: analog ? Infinity : high - VIH,
        marginLow: Infinity,
        usualHigh: analog ? Infinity : from.V!.typ - evaluate(r.level.VIH ?? 0, { ...r.vars, V: r.V.typ }),
        usualLow: Infinity,
        analog,
      },
    ];
  });
}

/** The supplies that resistors of this group of nets lead to. */
const pullRails = (byId: Map<string, Net>, branches: NetElement[]): Net[] =>
  branches
    .flatMap((b) => [b.a, b.b])
    .flatMap((id) => {
      const net = byId.get(id);
      return net?.kind === "supply" && net.V ? [net] : [];
    });

function verdict(
  d: Port,
  r: Port,
  open: boolean,
  byId: Map<string, Net>,
  branches: NetElement[],
  analog: boolean,
): LevelVerdict | null {
  // A released line stands at its pull-ups' rail, wherever the part that releases it is fed.
  const rails = open ? pullRails(byId, branches) : [d.supplyNet];
  const same = rails.every((x) => x.id === r.supplyNet.id);
  const sameNominal = rails.every((x) => Math.abs(x.V!.typ - r.V.typ) <= SAME_NOMINAL_V);
  const driverNet = d.net.id;
  const drive = (V: number, I: number) => {
    const { V0, ohm } = outputLine(d.level, V, d.vars, "VOH");
    return V0 - I * ohm;
  };
  const sink = (V: number, I: number) => {
    const { V0, ohm } = outputLine(d.level, V, d.vars, "VOL");
    return V0 + I * ohm;
  };
  const highAt = (pick: Pick) => {
    if (open) return voltage(byId, branches, null, null, r.net.id, pick, "low");
    const V = d.V[pick];
    const I = loadCurrent(byId, branches, driverNet, drive(V, 0));
    return voltage(byId, branches, driverNet, drive(V, I), r.net.id, pick, "low");
  };
  const lowAt = (pick: Pick) => {
    const V = d.V[pick];
    const I = loadCurrent(byId, branches, driverNet, 0);
    return voltage(byId, branches, driverNet, sink(V, I), r.net.id, pick, "high");
  };
  const top =
    d.level.outMax === undefined ? d.V.max : Math.min(d.V.max, evaluate(d.level.outMax, { ...d.vars, V: d.V.max }));
  const highest = open
    ? voltage(byId, branches, null, null, r.net.id, "max", "high")
    : voltage(byId, branches, driverNet, top, r.net.id, "max", "high");
  const threshold = (x: number | string | undefined, V: number) => evaluate(x ?? 0, { ...r.vars, V });
  const ends: [Pick, number][] = same
    ? [
        ["min", r.V.min],
        ["max", r.V.max],
      ]
    : sameNominal
      ? [["min", r.V.typ]]
      : [["min", r.V.max]];
  let worstHigh = { high: NaN, VIH: 0, margin: Infinity };
  for (const [pick, V] of ends) {
    const high = highAt(pick);
    const VIH = threshold(r.level.VIH, V);
    if (high - VIH < worstHigh.margin || Number.isNaN(high)) worstHigh = { high, VIH, margin: high - VIH };
  }
  const lowEnds: [Pick, number][] = same ? ends : [["max", sameNominal ? r.V.typ : r.V.min]];
  let worstLow = { low: NaN, VIL: 0, margin: Infinity };
  for (const [pick, V] of lowEnds) {
    const low = lowAt(pick);
    const VIL = threshold(r.level.VIL, V);
    if (VIL - low < worstLow.margin || Number.isNaN(low)) worstLow = { low, VIL, margin: VIL - low };
  }
  if (Number.isNaN(worstHigh.high) || Number.isNaN(worstLow.low)) return null;
  const free = analog || r.level.VIH === undefined;
  const ceilingV = same ? r.V.max : sameNominal ? Math.max(r.V.typ, r.V.min) : r.V.min;
  return {
    net: d.net,
    driver: {
      ref: d.end.ref,
      pin: d.end.pin,
      net: driverNet,
      supplyNet: d.supplyNet.id,
      V: d.V,
      how: open ? "pull-up" : "push-pull",
    },
    receiver: { ref: r.end.ref, pin: r.end.pin, net: r.net.id, supplyNet: r.supplyNet.id, V: r.V },
    high_V: worstHigh.high,
    low_V: worstLow.low,
    highest_V: highest,
    VIH: worstHigh.VIH,
    VIL: worstLow.VIL,
    ceiling: evaluate(r.level.absMax, { ...r.vars, V: ceilingV }),
    marginHigh: free ? Infinity : worstHigh.margin,
    marginLow: free ? Infinity : worstLow.margin,
    usualHigh: free ? Infinity : highAt("typ") - threshold(r.level.VIH, r.V.typ),
    usualLow: free ? Infinity : threshold(r.level.VIL, r.V.typ) - lowAt("typ"),
    analog: free,
  };
}
