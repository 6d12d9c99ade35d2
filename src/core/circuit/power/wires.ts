import { linkBehind, type Net, type Netlist, type Wire } from "../netlist";
import { partsAwg, partsCm, USUAL_CM } from "../../project";
import { endText } from "./ends";
import { sourcesOn } from "./at";
import type { PowerReport } from "./tree";

/** Copper at 20 °C, ohm·metre (IEC 60028). */
const RHO = 1.724e-8;
/** A wire of this gauge: diameter 0.127 mm · 92^((36 − n)/39) (ASTM B258). Returns square metres. */
export const awgArea = (awg: number) => (Math.PI / 4) * (0.127e-3 * 92 ** ((36 - awg) / 39)) ** 2;
/** Resistance of one metre of copper wire, ohms. */
export const awgOhmPerMetre = (awg: number) => RHO / awgArea(awg);
/** What single insulated wires carry without getting warm in a bundle, amperes; chassis figures, halved for bundles. */
const AMPACITY: [awg: number, A: number][] = [
  [10, 27],
  [12, 20],
  [14, 16],
  [16, 11],
  [18, 8],
  [20, 5.5],
  [22, 3.5],
  [24, 1.75],
  [26, 1.1],
  [28, 0.7],
  [30, 0.43],
  [32, 0.26],
];
/** The largest lasting current of a gauge, amperes; of the next thinner listed one for a gauge between. */
export const awgAmpacity = (awg: number) => (AMPACITY.find(([g]) => g >= awg) ?? AMPACITY.at(-1)!)[1];
/** Jumper wires and the springs of a breadboard, amperes. */
export const JUMPER_A = 1;
/** What jumpers and hook-up wires of a usual kit are. */
export const JUMPER_AWG = 26;
/** A drop that nobody minds, volts, and as a share of the rail. */
export const DROP_V = 0.25;
export const DROP_SHARE = 0.05;

/** The thinnest listed gauge that carries `A` amperes over `cm` centimetres and back within the drop. */
export function gaugeFor(A: number, cm: number, V: number): number {
  const fits = (awg: number) =>
    awgAmpacity(awg) >= A && 2 * (cm / 100) * awgOhmPerMetre(awg) * A <= Math.max(DROP_V, V * DROP_SHARE);
  return [...AMPACITY].reverse().find(([g]) => g <= 24 && fits(g))?.[0] ?? 10;
}

export interface SupplyWire {
  wire: Wire;
  from: string;
  to: string;
  net: string;
  /** Amperes through it. */
  typ_A: number;
  peak_A: number;
  cm: number;
  /** The gauge that the person chose, or that the plan takes. */
  awg: number;
  chosen: boolean;
  /** There and back, ohms: 2·L·R. */
  ohm: number;
  /** Volts lost on the way there and back at peak: 2·L·R·I. */
  drop_V: number;
  limit_A: number;
}

interface Step {
  to: string;
  wire?: Wire;
}

/** One step down a rail's tree of wires: from where it is fed towards what takes it. */
export interface Branch {
  from: string;
  to: string;
  /** Amperes that flow here and on to everything below. */
  typ_A: number;
  peak_A: number;
  /** A cable with a plug at both ends. */
  cable: boolean;
  /** The wire of this step; absent between a pin and the rail inside its part. */
  wire?: SupplyWire;
}

/** The pins and nodes of a supply net, joined as its wires join them. */
function stepsOf(n: Netlist, net: Net): Map<string, Step[]> {
  const steps = new Map<string, Step[]>();
  const put = (x: string, step: Step) => {
    const list = steps.get(x);
    if (list) list.push(step);
    else steps.set(x, [step]);
  };
  const join = (a: string, b: string, wire?: Wire) => {
    put(a, { to: b, ...(wire && { wire }) });
    put(b, { to: a, ...(wire && { wire }) });
  };
  const ends = new Set(net.ends.map((e) => `${e.ref}.${e.pin}`));
  for (const e of net.ends) if (e.def.supply) join(`${e.ref}.${e.pin}`, `${e.ref}:${e.def.supply}`);
  for (const w of n.wires) {
    if (w.cable) {
      const sides = [w.from, w.to].map((e) => {
        const supply = n.instance(e.ref)?.part.pins.find((p) => p.label === e.pin)?.supply;
        return `${e.ref}:${supply}`;
      });
      if (net.nodes.some((x) => `${x.ref}:${x.supply}` === sides[0])) join(sides[0]!, sides[1]!, w);
    } else if (ends.has(endText(w.from))) join(endText(w.from), endText(w.to), w);
  }
  return steps;
}

/** Where a supply net is fed: the node of its source, or of the part that makes it. */
export function entryOf(n: Netlist, power: PowerReport, net: Net): string | undefined {
  const source = sourcesOn(n, net)[0];
  if (source) return `${source.ref}:${net.nodes.find((x) => x.ref === source.ref && x.supply)?.supply}`;
  return power.stages.find((s) => s.to === net.id)?.toNode;
}

function treeOf(n: Netlist, power: PowerReport, net: Net): Branch[] {
  const { project } = n.expanded;
  const start = entryOf(n, power, net);
  if (!start || !net.V) return [];
  const steps = stepsOf(n, net);
  const load = new Map<string, { typ: number; peak: number }>();
  const put = (at: string, typ: number, peak: number) => {
    const known = load.get(at) ?? { typ: 0, peak: 0 };
    load.set(at, { typ: known.typ + typ, peak: known.peak + peak });
  };
  for (const x of power.own.get(net.id) ?? []) {
    const pin = net.ends.find((e) => e.ref === x.node);
    put(pin ? `${pin.ref}.${pin.pin}` : x.node, x.flow.typ, x.flow.peak);
  }
  for (const s of power.stages) if (s.from === net.id && s.to !== net.id) put(s.fromNode, s.in.typ, s.in.peak);
  const seen = new Set([start]);
  const order: { at: string; up: string | null; wire?: Wire }[] = [{ at: start, up: null }];
  for (const here of order)
    for (const next of steps.get(here.at) ?? []) {
      if (seen.has(next.to)) continue;
      seen.add(next.to);
      order.push({ at: next.to, up: here.at, ...(next.wire && { wire: next.wire }) });
    }
  const out: Branch[] = [];
  for (const { at, up, wire } of order.reverse()) {
    const below = load.get(at) ?? { typ: 0, peak: 0 };
    if (up === null) continue;
    put(up, below.typ, below.peak);
    const branch = { from: up, to: at, typ_A: below.typ, peak_A: below.peak, cable: wire?.cable === true };
    if (!wire || wire.cable) {
      out.push(branch);
      continue;
    }
    const own = linkBehind(n, endText(wire.from), endText(wire.to));
    const refs = [wire.to.ref, wire.from.ref];
    const cm = own?.cm ?? partsCm(project, refs) ?? USUAL_CM;
    const given = own?.awg ?? partsAwg(project, refs);
    const awg = given ?? (below.peak > JUMPER_A ? gaugeFor(below.peak, cm, net.V.typ) : JUMPER_AWG);
    out.push({
      ...branch,
      wire: {
        wire,
        from: up,
        to: at,
        net: net.name,
        typ_A: below.typ,
        peak_A: below.peak,
        cm,
        awg,
        chosen: given !== undefined,
        ohm: 2 * (cm / 100) * awgOhmPerMetre(awg),
        drop_V: 2 * (cm / 100) * awgOhmPerMetre(awg) * below.peak,
        limit_A: awgAmpacity(awg),
      },
    });
  }
  return out;
}

const memo = new WeakMap<PowerReport, Map<string, Branch[]>>();

/**
 * The current in every step of the supplies, by net: from where a rail is fed, along its wires, to each load, by a spanning
 * tree of the wires (rings are followed one way); the farthest steps first.
 */
export function supplyTrees(n: Netlist, power: PowerReport): ReadonlyMap<string, Branch[]> {
  const known = memo.get(power);
  if (known) return known;
  const out = new Map(
    n.nets.flatMap((x) => (x.kind === "supply" && x.V ? [[x.id, treeOf(n, power, x)] as const] : [])),
  );
  memo.set(power, out);
  return out;
}

/** The current in every wire of the supplies. Ground returns carry the same and are counted in the drop. */
export const supplyWires = (n: Netlist, power: PowerReport): SupplyWire[] =>
  [...supplyTrees(n, power).values()].flatMap((list) => list.flatMap((b) => b.wire ?? []));
