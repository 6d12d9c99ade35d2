import { findPin, partKind } from "../../parts/catalogue";
import type { Circuit } from "../../circuit";
import type { Net, Wire } from "../../circuit/netlist";
import { gaugeFor, JUMPER_A, supplyWires } from "../../circuit/power";
import { houseRule, joinEnd } from "../../project";
import { crowdOf } from "./crowds";
import { isSupply, takes } from "./ends";
import type { Heavy, Hub, Point, Stretch } from "./types";

export * from "./types";

/** A row of a breadboard takes five; what is more goes on in a second row. */
const ROW_TAKES = 5;
const RAILS_EACH = 2;

/** Both ends of a wire, in one order: its name wherever it is laid. */
export const pairName = (a: string, b: string) => [a, b].sort().join("~");
export const nameOf = (p: Point | Hub) => (typeof p === "string" ? p : joinEnd(p));

/** Wires that carry more than a jumper or a rail stands, and those of a gauge that the person chose, by their ends. */
export function heavyWires(c: Circuit): Map<string, Heavy> {
  const volts = new Map(c.netlist.nets.map((n) => [n.name, n.V?.typ ?? 5]));
  return new Map(
    supplyWires(c.netlist, c.power)
      .filter((w) => w.chosen || w.peak_A > JUMPER_A)
      .map((w) => [
        pairName(w.from, w.to),
        {
          awg: w.awg,
          A: w.peak_A,
          V: volts.get(w.net) ?? 5,
          says: `${w.awg} AWG, up to ${w.peak_A.toFixed(1)} A${w.peak_A > JUMPER_A ? ": no jumper, no breadboard rail" : ""}`,
        },
      ]),
  );
}

/** The way back of each heavy supply wire: from the load's ground straight to the ground of what feeds it. */
function heavyReturns(c: Circuit, net: Net, heavy: ReadonlyMap<string, Heavy>): Stretch[] {
  const groundOf = (ref: string): Point | undefined => net.ends.find((e) => e.ref === ref);
  const seen = new Set<string>();
  return [...heavy].flatMap(([name, h]): Stretch[] => {
    const [x, y] = name.split("~").map((e) => e.split(".")[0]!);
    const [from, to] = [groundOf(x!), groundOf(y!)];
    if (!from || !to || x === y) return [];
    const [a, b] = isSupply(c.netlist.instance(x!)) ? [to, from] : [from, to];
    const key = pairName(nameOf(a), nameOf(b));
    if (seen.has(key)) return [];
    seen.add(key);
    return [{ a, b, heavy: { ...h, says: `${h.says} (the way back)` } }];
  });
}

const order = (c: Circuit, p: Point) => {
  const inst = c.netlist.instance(p.ref)!;
  if (isSupply(inst)) return 0;
  return inst.part.board ? 1 : inst.inserted ? 3 : 2;
};

/** Several supply or ground pins that a board joins inside need only one wire between them and the rest. */
function withoutTwins(c: Circuit, points: Point[]): Point[] {
  const seen = new Set<string>();
  return points.filter((p) => {
    const { part } = c.netlist.instance(p.ref)!;
    const pin = findPin(part, p.pin);
    if (partKind(part.id) !== "board" || !pin || pin.role === "signal" || pin.role === "passive") return true;
    const key = `${p.ref} ${pin.supply ?? pin.domain ?? pin.role}`;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

/** Wires from every point to one place; more than a row takes go on in further rows, joined by a wire each. */
function star(points: Point[], hub: Hub, most: number): Stretch[] {
  const out: Stretch[] = [];
  let [at, used, n] = [hub, 0, 1];
  points.forEach((p, i) => {
    const left = points.length - i;
    if (used === most - 1 && left > 1) {
      const next = `${hub} ${++n}`;
      out.push({ a: at, b: next, because: "the row is full: this wire carries on in the next" });
      [at, used] = [next, 1];
    }
    out.push({ a: p, b: at });
    used++;
  });
  return out;
}

/** From part to part: through those that take two wires, the others at free pins of the first, the rest at a splice. */
function chain(
  c: Circuit,
  net: Net,
  points: Point[],
  room: (p: Point) => number,
  touched: ReadonlySet<string>,
): Stretch[] {
  const [root, ...rest] = points as [Point, ...Point[]];
  const through = rest.filter((p) => room(p) > 1);
  const leaves = rest.filter((p) => room(p) <= 1);
  const out: Stretch[] = [];
  const slots: Point[] = [];
  let at = root;
  let left = room(root);
  for (const p of through) {
    out.push({ a: at, b: p });
    for (let k = 1; k < left; k++) slots.push(at);
    [at, left] = [p, room(p) - 1];
  }
  for (let k = 0; k < left; k++) slots.push(at);
  // Pins that the first part joins inside and that nothing uses take a wire each.
  const spare = net.ends.filter((e) => e.ref === root.ref && e.pin !== root.pin && !touched.has(joinEnd(e)));
  slots.push(...spare.map(({ ref, pin }) => ({ ref, pin })));
  const direct = leaves.length <= slots.length ? leaves : leaves.slice(0, Math.max(0, slots.length - 1));
  direct.forEach((p, i) => out.push({ a: slots[i]!, b: p }));
  const more = leaves.slice(direct.length);
  if (more.length) out.push({ a: slots[direct.length] ?? root, b: `${net.name} splice` });
  for (const p of more) out.push({ a: p, b: `${net.name} splice` });
  return out;
}

/** Which nets get a rail of a breadboard: two of each kind, those with most ends. */
function railNets(c: Circuit): Set<string> {
  const most = (kind: Net["kind"]) =>
    c.netlist.nets
      .filter((n) => n.kind === kind && n.ends.length > 2)
      .sort((a, b) => b.ends.length - a.ends.length)
      .slice(0, RAILS_EACH)
      .map((n) => n.id);
  return new Set([...most("ground"), ...most("supply")]);
}

/** What one short wire to a bus strip carries and must be, for several heavy ones together. */
const TO_STRIP_CM = 10;

/**
 * More heavy wires at a contact than it takes meet at a bus strip beside it, one strong wire away. A further light wire is
 * counted in: it comes from the same contact.
 */
function overStrips(c: Circuit, net: Net, strong: Stretch[]): Stretch[] {
  const at = new Map<string, Stretch[]>();
  for (const s of strong) for (const p of [s.a, s.b]) at.set(nameOf(p), [...(at.get(nameOf(p)) ?? []), s]);
  let out = strong;
  for (const [name, list] of at) {
    const point = [list[0]!.a, list[0]!.b].find((p) => nameOf(p) === name)!;
    if (typeof point === "string" || list.length < 2) continue;
    if (list.length + 1 <= takes(c.netlist.instance(point.ref)!, point.pin)) continue;
    const hub = `${net.name} bus strip`;
    const A = list.reduce((sum, s) => sum + s.heavy!.A, 0);
    const awg = Math.min(gaugeFor(A, TO_STRIP_CM, list[0]!.heavy!.V), ...list.map((s) => s.heavy!.awg));
    const there = (p: Point | Hub) => (nameOf(p) === name ? hub : p);
    out = [
      ...out.map((s) => (list.includes(s) ? { ...s, a: there(s.a), b: there(s.b) } : s)),
      {
        a: point,
        b: hub,
        heavy: { awg, A, V: list[0]!.heavy!.V, says: `${awg} AWG, up to ${A.toFixed(1)} A for all of them` },
      },
    ];
  }
  return out;
}

interface Split {
  /** Wires that carry much: they go straight. */
  strong: Stretch[];
  /** What is left to be joined: one pin for each piece that the strong wires, or a board inside, already join. */
  light: Point[];
  /** Wires that a pin still takes. */
  room(p: Point): number;
}

/**
 * A bulk capacitor helps only where the current is drawn: at the end of a long wire, not at the rail where that wire begins.
 * Where a contact of its part takes a second wire beside its supply, its legs go there.
 */
function atTheirParts(c: Circuit, wires: Wire[], heavy: ReadonlyMap<string, Heavy>): Wire[] {
  return wires.filter((w) => {
    const [leg, pin] =
      c.netlist.instance(w.from.ref)?.inserted?.key === "bulkCapacitor" ? [w.from, w.to] : [w.to, w.from];
    const cap = c.netlist.instance(leg.ref)?.inserted;
    if (cap?.key !== "bulkCapacitor" || cap.by !== pin.ref) return false;
    const feeds = wires.filter((x) => x !== w && [joinEnd(x.from), joinEnd(x.to)].includes(joinEnd(pin)));
    const strong = feeds.filter((x) => heavy.has(pairName(joinEnd(x.from), joinEnd(x.to))));
    return Math.max(1, strong.length) + 1 <= takes(c.netlist.instance(pin.ref)!, pin.pin);
  });
}

function split(
  c: Circuit,
  net: Net,
  wires: Wire[],
  heavy: ReadonlyMap<string, Heavy>,
  taken: ReadonlySet<string> = new Set(),
): Split {
  const points = new Map<string, Point>();
  for (const w of wires) for (const e of [w.from, w.to]) points.set(joinEnd(e), e);
  const straight: Stretch[] = wires.flatMap((w) => {
    const h = heavy.get(pairName(joinEnd(w.from), joinEnd(w.to)));
    return h ? [{ ...direct(w), heavy: h }] : [];
  });
  if (net.kind === "ground")
    straight.push(...heavyReturns(c, net, heavy).filter((s) => points.has(nameOf(s.a)) && points.has(nameOf(s.b))));
  const strong = overStrips(c, net, straight);
  const used = new Map<string, number>();
  for (const s of strong) for (const p of [s.a, s.b]) used.set(nameOf(p), (used.get(nameOf(p)) ?? 0) + 1);
  // What the heavy wires join already counts as one; the end nearest to the source speaks for it.
  const group = new Map([...points.keys()].map((k) => [k, k]));
  const root = (k: string): string => (group.get(k) === k ? k : root(group.get(k)!));
  const sorted = [...points.values()].sort((a, b) => order(c, a) - order(c, b));
  const rank = new Map(sorted.map((p, i) => [joinEnd(p), i]));
  for (const s of straight) {
    const [x, y] = [root(nameOf(s.a)), root(nameOf(s.b))];
    if (x === y) continue;
    const [near, far] = rank.get(x)! <= rank.get(y)! ? [x, y] : [y, x];
    group.set(far, near);
  }
  return {
    strong,
    light: withoutTwins(c, sorted).filter((p) => root(joinEnd(p)) === joinEnd(p)),
    room: (p) =>
      takes(c.netlist.instance(p.ref)!, p.pin) - (used.get(joinEnd(p)) ?? 0) - (taken.has(joinEnd(p)) ? 1 : 0),
  };
}

/** The pins of a net that light wires or the rows of a breadboard must join. */
export const lightPoints = (c: Circuit, net: Net, wires: Wire[], heavy: ReadonlyMap<string, Heavy>): Point[] =>
  split(c, net, wires, heavy).light;
/** The wires of a net that go straight, whatever the rest does. */
export const heavyStretches = (c: Circuit, net: Net, wires: Wire[], heavy: ReadonlyMap<string, Heavy>): Stretch[] =>
  split(c, net, wires, heavy).strong;

/** Where wires meet that are too much together for a rail or a chain. */
export function crowdHub(c: Circuit, net: Net): Hub {
  if (houseRule(c.project, "sharing") === "splice") return `${net.name} splice`;
  return `${net.name} ${houseRule(c.project, "firstBuild") === "solder" ? "bus wire" : "bus strip"}`;
}

/** One strong wire from each part that feeds to the place where all meet, and a light one from everything else. */
function gathered(light: Point[], crowd: ReadonlyMap<string, Heavy>, hub: Hub): Stretch[] {
  const fed = new Set<string>();
  return light.map((p): Stretch => {
    const feed = fed.has(p.ref) ? undefined : crowd.get(p.ref);
    fed.add(p.ref);
    return { a: p, b: hub, ...(feed && { heavy: feed }) };
  });
}

/**
 * What of a net goes its own way whatever carries the rest: heavy wires, and where all are too much together, one wire each to
 * the place where they meet. `light`: the pins that are left to be joined, none when they meet there.
 */
export function ownWays(
  c: Circuit,
  net: Net,
  wires: Wire[],
  heavy: ReadonlyMap<string, Heavy>,
): { stretches: Stretch[]; light: Point[] } {
  const { strong, light } = split(c, net, wires, heavy);
  const crowd = crowdOf(c, net, heavy);
  if (!crowd.size || light.length < 2) return { stretches: strong, light };
  const hub = crowdHub(c, net);
  return { stretches: merged(net, [...strong, ...gathered(light, crowd, hub)], hub), light: [] };
}

/** Two wires between one contact and one strip are one wire, for the sum of both. */
export function merged(net: Net, list: Stretch[], hub: Hub): Stretch[] {
  const strip = `${net.name} bus strip`;
  const out = new Map<string, Stretch>();
  for (const s of list.map((x) => ({ ...x, a: x.a === strip ? hub : x.a, b: x.b === strip ? hub : x.b }))) {
    const key = `${pairName(nameOf(s.a), nameOf(s.b))} ${s.holes?.filter(Boolean).join(" ") ?? ""}`;
    const known = out.get(key);
    if (!known?.heavy || !s.heavy) {
      out.set(key, known?.heavy ? known : s);
      continue;
    }
    const A = known.heavy.A + s.heavy.A;
    const awg = Math.min(gaugeFor(A, TO_STRIP_CM, s.heavy.V), s.heavy.awg, known.heavy.awg);
    const heavy = { ...s.heavy, A, awg, says: `${awg} AWG, up to ${A.toFixed(1)} A for all of them` };
    out.set(key, { ...s, ...known, heavy });
  }
  return [...out.values()];
}

const direct = (w: Wire): Stretch => ({ a: w.from, b: w.to, ...(w.because && { because: w.because }) });

/**
 * The wires of one net as they are really laid. Heavy loads go straight to what feeds them, and straight back. A net of
 * two ends is one wire. Where more meet, the house rule chooses: rails of a breadboard (a free row for what has no rail),
 * from part to part, or one splice. No contact gets more wires than it takes.
 */
export function layNet(c: Circuit, net: Net, wires: Wire[], heavy: ReadonlyMap<string, Heavy>): Stretch[] {
  const near = atTheirParts(c, wires, heavy);
  const because = "right at the part: at the other end of its wire the capacitor would not help";
  return [
    ...near.map((w): Stretch => ({ ...direct(w), because, close: true })),
    ...layRest(
      c,
      net,
      wires.filter((w) => !near.includes(w)),
      heavy,
      new Set(near.flatMap((w) => [joinEnd(w.from), joinEnd(w.to)])),
    ),
  ];
}

/** The wires of a net without those that lie at a part already; `taken` are the contacts that these use. */
function layRest(
  c: Circuit,
  net: Net,
  wires: Wire[],
  heavy: ReadonlyMap<string, Heavy>,
  taken: ReadonlySet<string>,
): Stretch[] {
  if (!wires.length) return [];
  const { strong, light, room } = split(c, net, wires, heavy, taken);
  if (light.length < 2) return strong;
  const crowd = crowdOf(c, net, heavy);
  if (crowd.size) {
    const hub = crowdHub(c, net);
    return merged(net, [...strong, ...gathered(light, crowd, hub)], hub);
  }
  const rule = houseRule(c.project, "sharing");
  if (!strong.length && (light.length === 2 || net.kind === "signal")) {
    const list = wires.map(direct);
    const degree = new Map<string, number>();
    for (const s of list) for (const p of [s.a, s.b]) degree.set(nameOf(p), (degree.get(nameOf(p)) ?? 0) + 1);
    if (light.every((p) => (degree.get(joinEnd(p)) ?? 0) <= room(p))) return list;
  }
  if (light.length === 2 && light.every((p) => room(p) > 0)) return [...strong, { a: light[0]!, b: light[1]! }];
  const touched = new Set(wires.flatMap((w) => [joinEnd(w.from), joinEnd(w.to)]));
  if (rule === "daisy-chain") return [...strong, ...chain(c, net, light, room, touched)];
  if (rule === "splice") return [...strong, ...star(light, `${net.name} splice`, Infinity)];
  // Soldered at once, there are no rails and rows: a bare wire along the carrier, or pads joined to an island.
  if (houseRule(c.project, "firstBuild") === "solder")
    return [...strong, ...star(light, `${net.name} ${net.kind === "signal" ? "island" : "bus wire"}`, Infinity)];
  if (railNets(c).has(net.id))
    return [...strong, ...star(light, `${net.name} rail (${net.kind === "ground" ? "−" : "+"})`, Infinity)];
  return [...strong, ...star(light, `${net.name} row`, ROW_TAKES)];
}
