import type { Circuit } from "../../circuit";
import type { Instance, NetElement } from "../../circuit/netlist";
import { outerTerminal } from "../../circuit/netlist";
import { findPin, type Pin } from "../../parts/catalogue";
import { evaluate } from "../../quantity";
import { joinEnd } from "../../project";

/** A wire as it lies on the bench: its two ends as places in the list of terminals. A cable is one thing with two conductors. */
export interface LaidWire {
  /** Its place in the list of wires. */
  i: number;
  a: string;
  b: string;
  pairs: readonly (readonly [number, number])[];
  cable: boolean;
  /** Length in centimetres, where it is known. */
  cm: number | null;
}

/** An element of a part between terminals. */
export interface LaidElement {
  i: number;
  of: NetElement;
  a: number;
  b: number;
  control: number | undefined;
}

/** A way on which a signal passes inside a part, both directions. */
export interface Passage {
  ref: string;
  a: number;
  b: number;
  chain: boolean;
}

/** One of a part's signals and the board's pin that it must reach. */
export interface LaidNeed {
  ref: string;
  pin: number;
  host: string;
  hostPin: number;
}

/** A part's supply node with its ground node, what it stands and what it draws. */
export interface LaidSupply {
  ref: string;
  key: string;
  node: number;
  ground: number;
  least: number;
  most: number;
  fed: boolean;
}

/** A plan as things on a bench: terminals, wires, elements. Made once a plan; every fault is a small change of it. */
export interface Laid {
  c: Circuit;
  terminals: readonly string[];
  place: ReadonlyMap<string, number>;
  /** Joined inside parts, whatever is wired. */
  joins: readonly (readonly [number, number])[];
  wires: readonly LaidWire[];
  elements: readonly LaidElement[];
  passages: readonly Passage[];
  needs: readonly LaidNeed[];
  supplies: readonly LaidSupply[];
  /** Terminals of supply nodes and of ground nodes. */
  supplyNodes: ReadonlySet<number>;
  groundNodes: ReadonlySet<number>;
  /** Pins of the plan by terminal; nodes inside parts have none. */
  pins: ReadonlyMap<number, { ref: string; inst: Instance; def: Pin }>;
}

const supplyNode = (ref: string, supply: string) => `${ref}:${supply}`;
const groundNode = (ref: string, domain: string) => `${ref}:ground:${domain}`;

/** What a part draws, as a load between its supply and its ground: seen where its ground hangs in the air. */
function ownLoad(inst: Instance, key: string): NetElement | null {
  const s = inst.part.supplies[key]!;
  if (s.source || !s.mA) return null;
  const A1 = evaluate(s.mA.typ, inst.vars) / 1000;
  if (!(A1 > 0)) return null;
  const A = { idle: A1, typ: A1, peak: A1 };
  const def = { kind: "load" as const, a: "", b: "", V: s.V, mA: s.mA, inductive: false };
  return { ref: inst.ref, kind: "load", def, a: "", b: "", A, inductive: false, module: true };
}

function passages(inst: Instance, at: (end: string) => number): Passage[] {
  const out: Passage[] = [];
  const put = (a: string | undefined, b: string | undefined, chain: boolean) => {
    if (a && b) out.push({ ref: inst.ref, a: at(`${inst.ref}.${a}`), b: at(`${inst.ref}.${b}`), chain });
  };
  for (const ch of inst.part.channels) put(ch.in, ch.out, false);
  for (const g of inst.part.groups) {
    if (g.kind !== "chain") continue;
    put(g.pins.in, g.pins.out, true);
    put(g.pins.clockIn, g.pins.clockOut, true);
  }
  return out;
}

const known = new WeakMap<Circuit, Laid>();

/** Lays a plan out; once a plan. */
export function layOut(c: Circuit): Laid {
  const there = known.get(c) ?? lay(c);
  known.set(c, there);
  return there;
}

function lay(c: Circuit): Laid {
  const place = new Map<string, number>();
  const terminals: string[] = [];
  const at = (t: string): number => {
    const known = place.get(t);
    if (known !== undefined) return known;
    place.set(t, terminals.length);
    return terminals.push(t) - 1;
  };
  const joins: [number, number][] = [];
  const elements: Omit<LaidElement, "i">[] = [];
  const ways: Passage[] = [];
  const supplies: LaidSupply[] = [];
  const supplyNodes = new Set<number>();
  const groundNodes = new Set<number>();
  const pins: Map<number, { ref: string; inst: Instance; def: Pin }> = new Map();
  const e = c.netlist.expanded;
  // Two parts of a kind share their definitions: an element is known by its part and its place there.
  const values = new Map(
    c.netlist.elements.flatMap((x) => {
      const index = x.def && !x.module ? (e.instances.get(x.ref)?.part.elements.indexOf(x.def) ?? -1) : -1;
      return index < 0 ? [] : [[`${x.ref} ${index}`, x] as const];
    }),
  );
  for (const inst of e.instances.values()) {
    const { ref, part } = inst;
    for (const [key, s] of Object.entries(part.supplies)) {
      const node = at(supplyNode(ref, key));
      const ground = at(groundNode(ref, s.domain));
      supplyNodes.add(node);
      groundNodes.add(ground);
      const net = c.netlist.netOf(supplyNode(ref, key));
      const least = evaluate(s.V.min, inst.vars);
      const most = Math.max(s.absMax_V ?? 0, evaluate(s.V.max, inst.vars));
      supplies.push({ ref, key, node, ground, least, most, fed: net?.V != null && net.kind === "supply" });
      const load = ownLoad(inst, key);
      if (load) elements.push({ of: load, a: node, b: ground, control: undefined });
    }
    for (const p of part.pins) {
      const i = at(`${ref}.${p.label}`);
      pins.set(i, { ref, inst, def: p });
      if (p.role.startsWith("supply-")) joins.push([at(supplyNode(ref, p.supply!)), i]);
      if (p.role === "ground" || p.role === "cable") {
        const g = at(groundNode(ref, p.domain ?? "gnd"));
        groundNodes.add(g);
        if (p.role === "ground") joins.push([g, i]);
      }
    }
    for (const [index, el] of part.elements.entries()) {
      const own = values.get(`${ref} ${index}`);
      if (!own) continue;
      const t = (end: string) =>
        at(/^(supply|ground):/.test(end) ? `${ref}:${end.replace(/^supply:/, "")}` : `${ref}.${end}`);
      if (el.kind === "bjt") elements.push({ of: own, a: t(el.c), b: t(el.e), control: t(el.b) });
      else if (el.kind === "fet") elements.push({ of: own, a: t(el.d), b: t(el.s), control: t(el.g) });
      else elements.push({ of: own, a: t(el.a), b: t(el.b), control: undefined });
    }
    ways.push(...passages(inst, at));
  }
  // Pulls inside the board's chip: they start with the program.
  for (const end of e.internalPulls) {
    const own = c.netlist.elements.find(
      (x) => x.internal && (x.a === c.netlist.netOf(outerTerminal(e, end)).id || x.b === c.netlist.netOf(end).id),
    );
    const b = c.netlist.bindings.find((x) => joinEnd(x) === end);
    const level = b && c.netlist.level(b.host, b.hostPin);
    if (!own || !b || !level) continue;
    elements.push({
      of: own,
      a: at(`${b.host}.${b.hostPin}`),
      b: at(supplyNode(b.host, level.supply)),
      control: undefined,
    });
  }
  const cms = new Map(
    c.project.links.flatMap((l) => (l.cm === undefined ? [] : [[`${l.from} ${l.to}`, l.cm] as const])),
  );
  const length = (ref: string) => c.project.parts.find((p) => p.ref === ref)?.wire_cm;
  const wires = e.wires.flatMap((w): Omit<LaidWire, "i">[] => {
    const [ia, ib] = [e.instances.get(w.from.ref), e.instances.get(w.to.ref)];
    const [pa, pb] = [ia && findPin(ia.part, w.from.pin), ib && findPin(ib.part, w.to.pin)];
    if (!ia || !ib || !pa || !pb) return [];
    const [a, b] = [`${ia.ref}.${pa.label}`, `${ib.ref}.${pb.label}`];
    const pairs: [number, number][] = w.cable
      ? [
          [at(supplyNode(ia.ref, pa.supply!)), at(supplyNode(ib.ref, pb.supply!))],
          [at(groundNode(ia.ref, pa.domain ?? "gnd")), at(groundNode(ib.ref, pb.domain ?? "gnd"))],
        ]
      : [[at(a), at(b)]];
    const cm = cms.get(`${a} ${b}`) ?? length(ia.ref) ?? length(ib.ref) ?? null;
    return [{ a, b, pairs, cable: w.cable, cm }];
  });
  const needs = c.netlist.bindings.flatMap((b): LaidNeed[] => {
    const [pin, hostPin] = [place.get(`${b.ref}.${b.pin}`), place.get(`${b.host}.${b.hostPin}`)];
    return pin === undefined || hostPin === undefined ? [] : [{ ref: b.ref, pin, host: b.host, hostPin }];
  });
  return {
    c,
    terminals,
    place,
    joins,
    wires: wires.map((w, i) => ({ ...w, i })),
    elements: elements.map((x, i) => ({ ...x, i })),
    passages: ways,
    needs,
    supplies,
    supplyNodes,
    groundNodes,
    pins,
  };
}
