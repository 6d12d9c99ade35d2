import {
  findPin,
  isBusKind,
  isPointToPoint,
  optionValues,
  oneEach,
  outputOf,
  type Need,
  type Part,
  type Pin,
} from "../../../parts/catalogue";
import { isDimmed, isWorked, type Instance, type Netlist } from "../../../circuit/netlist";
import { endOn, farOf, linksAt, splitEnd, type Project } from "../../../project";
import { evaluate } from "../../../quantity";
import { shareKey, waysToServe, type HostFacts, type Serve } from "../capability";
import { emptyProblem, type Choice, type Price, type Problem, type ProblemNeed } from "../problem";
import { WEIGHTS } from "../weights";
import { followers } from "./followers";
import { settledByHand, usedByHand } from "./hand";
import { ordersOf } from "./orders";
import { bearsVolts, busPrices, drivenVolts, hazardPrices, scarcityPrices, wishPrices } from "./prices";
import { Resources, sharedLines, steadyRates, takings, twoFaced } from "./uses";

/**
 * The need of a part's pin, with what its companions ask of the board pin (an internal pull-up), and pulses where a rule says how
 * bright it is.
 */
export function effectiveNeed(netlist: Netlist, ref: string, pin: Pin): Need {
  const need = pin.need!;
  const inst = netlist.instance(ref);
  if (inst && need.kind === "digital-out" && isDimmed(netlist, inst)) return { kind: "pwm" };
  if (!netlist.expanded.internalPulls.has(`${ref}.${pin.label}`)) return need;
  return { ...need, require: [...(need.require ?? []), "pull-up"] };
}

const entryOf = (project: Project, ref: string) => project.parts.find((x) => x.ref === ref);

const isConsoles = (p: Pin) => p.hazards?.some((h) => h.kind === "console") ?? false;
/** Both directions of serial ports that are not the console's. */
const hasFreePort = (board: Part) =>
  ["rx", "tx"].every((role) =>
    board.pins.some((p) => !isConsoles(p) && p.offers?.some((o) => o.kind === "uart" && o.role === role)),
  );
/** A rate that a program times on plain pins of any board, baud. */
const SOFT_BAUD = 9600;

/**
 * Where the console's is the only serial port, a part on it would disturb uploading and hear what the program tells: its program can
 * time a slow port on other pins, one of them. Bare chips have no console of their own.
 */
function betterInSoftware(project: Project, netlist: Netlist, board: Part | undefined, ref: string, group: string) {
  const part = netlist.instance(ref)?.part;
  if (!board?.board || board.board.family === "linux" || board.id.startsWith("chip/")) return false;
  if (part?.groups.find((g) => g.id === group)?.kind !== "uart" || hasFreePort(board)) return false;
  const { host } = netlist.instance(ref)!;
  const others = [...netlist.expanded.instances.values()].filter(
    (i) => i.ref !== ref && i.host === host && !i.part.board && i.part.groups.some((g) => g.kind === "uart"),
  );
  if (others.length) return false;
  return Number(optionValues(part, entryOf(project, ref)?.options ?? {}).baud ?? SOFT_BAUD) <= SOFT_BAUD;
}

/** What is to be known of a host beyond its pins, for one part's needs. */
export function hostFacts(project: Project, netlist: Netlist, host: string, ref: string, group?: string): HostFacts {
  const part = netlist.instance(host)?.part;
  return {
    ...(part && { part }),
    radio: String(entryOf(project, host)?.options?.radio) === "true",
    software:
      group !== undefined &&
      ((entryOf(project, ref)?.software ?? []).includes(group) || betterInSoftware(project, netlist, part, ref, group)),
  };
}

/** Parts on a host that offer pins to others: expanders, multiplexers, shift registers, converters. */
export const extenders = (netlist: Netlist, host: string): Instance[] =>
  [...netlist.expanded.instances.values()].filter(
    (i) => i.host === host && !i.inserted && !i.part.board && i.part.pins.some((p) => p.offers?.length),
  );

/** A pin as a place in the problem: its part and its definition. */
interface Slot {
  at: Instance;
  def: Pin;
  end: string;
  /** What it can bear, volts. */
  bears: number;
}

function slotsOf(netlist: Netlist, host: string): Slot[] {
  const board = netlist.instance(host)!;
  const headers = board.part.board!.headers.map((h) => h.id);
  const rank = (p: Pin) => (p.at ? headers.indexOf(p.at.header) * 1000 + p.at.index : 1e6);
  const own = board.part.pins.filter((p) => p.offers?.length).sort((a, b) => rank(a) - rank(b));
  const slot = (at: Instance, def: Pin): Slot => ({
    at,
    def,
    end: `${at.ref}.${def.label}`,
    bears: bearsVolts(netlist, at, def),
  });
  return [
    ...own.map((def) => slot(board, def)),
    ...extenders(netlist, host).flatMap((at) =>
      at.part.pins.filter((p) => p.offers?.length).map((def) => slot(at, def)),
    ),
  ];
}

/** Why a pin behind another chip is nothing for a need, or null. */
export function tooSlow(at: Instance, host: string, ref: string, need: Need): string | null {
  if (at.ref === host) return null;
  if (at.ref === ref) return "is its own";
  if (need.kind === "i2c" || need.kind === "bridge") return null;
  if (need.kind === "digital-out" && at.part.pins.some((p) => p.offers?.length && weakHigh(at, p)))
    return `is behind ${at.label}, which only pulls low strongly`;
  if (need.slow || (need.kind === "pwm" && need.use !== "tone")) return null;
  return `is behind ${at.label}, which is too slow for this`;
}

/** An output that gives less than this when high lights nothing and drives no base: it is good for pulling low only. */
const WEAK_OHM = 2000;

/** Whether a pin's high is only a weak pull-up, by its own data: the voltage that 1 mA costs. */
function weakHigh(at: Instance, pin: Pin): boolean {
  const level = pin.level ? at.part.levels[pin.level] : undefined;
  const VOH = level && outputOf(level, "VOH");
  if (VOH === undefined) return false;
  const at_ = (I: number) => evaluate(VOH, { ...at.vars, V: 5, I });
  return (at_(0) - at_(0.001)) / 0.001 > WEAK_OHM;
}

/** Everything of one need that does not hang on the pin. */
interface Asker {
  inst: Instance;
  need: Need;
  group: string | undefined;
  present: string | null;
  locked: string | null;
  volts: number | null;
}

interface Scene {
  project: Project;
  netlist: Netlist;
  host: string;
  slots: Slot[];
  /** Pins that the person uses otherwise. */
  taken: Set<string>;
  resources: Resources;
  scarcity: ReturnType<typeof scarcityPrices>;
  steady: string[];
  lines: Map<string, Set<string>>;
  faces: Map<string, Set<string>>;
}

const busName = (scene: Scene, a: Asker, at: Instance, way: Extract<Serve, { ok: true }>) =>
  way.software ? `software ${a.inst.ref}` : way.bus && at.ref !== scene.host ? `${at.ref}:${way.bus}` : way.bus;

function choicesOf(scene: Scene, a: Asker): Choice[] {
  const { project, netlist, host } = scene;
  const out: { choice: Choice; bears: number }[] = [];
  const known = new Map<Instance, { facts: HostFacts; slow: string | null }>();
  const factsOf = (at: Instance) => {
    const there = known.get(at);
    if (there) return there;
    const facts = hostFacts(project, netlist, at.ref, a.inst.ref, at.ref === host ? a.group : undefined);
    const made = { facts, slow: tooSlow(at, host, a.inst.ref, a.need) };
    known.set(at, made);
    return made;
  };
  scene.slots.forEach(({ at, def, end, bears }, pin) => {
    if (a.locked && a.locked !== end) return;
    if (scene.taken.has(end) && a.present !== end && a.locked !== end) return;
    const { facts, slow } = factsOf(at);
    if (slow && a.present !== end) return;
    for (const way of waysToServe(def, a.need, facts)) {
      if (!way.ok) continue;
      const behind = at.ref === host ? null : at.label;
      const common: Price[] = [
        ...hazardPrices(def, a.need),
        ...busPrices(def, way, behind),
        ...(behind && !way.bus && a.present !== end
          ? [{ reason: "behind" as const, cost: WEIGHTS.behind, says: `${end} is behind ${behind}` }]
          : []),
        ...(a.present && a.present !== end
          ? [
              {
                reason: "moved" as const,
                cost: WEIGHTS.moved,
                says: `the wire moves from ${endOn(host, a.present)} to ${endOn(host, end)}`,
              },
            ]
          : []),
        ...(behind ? [] : scene.scarcity(def, a.need)),
      ];
      const ways = takings(scene.resources, {
        host: at,
        pin: def,
        need: a.need,
        way,
        inst: a.inst,
        steady: scene.steady,
        lines: scene.lines.get(at.ref)!,
        faces: scene.faces.get(at.ref)!,
      });
      for (const t of ways) {
        const prices = [...common, ...wishPrices(def, a.need, t.unmet, at.part)];
        const cost = prices.reduce((s, x) => s + x.cost, 0);
        out.push({ choice: { pin, bus: busName(scene, a, at, way), cost, prices, uses: t.uses }, bears });
      }
    }
  });
  const over = a.volts === null ? [] : out.filter((x) => a.volts! > x.bears + 1e-9);
  // Where no pin bears it, the choice of pin is not the answer: the level rules speak.
  if (over.length < out.length)
    for (const { choice } of over) {
      const says = `${scene.slots[choice.pin]!.def.label} does not take ${a.volts!.toFixed(2)} V`;
      choice.prices.push({ reason: "level", cost: WEIGHTS.level, says });
      choice.cost += WEIGHTS.level;
    }
  return out.map((x) => x.choice);
}

/** Whether an endpoint is a signal pin of the host: a wire to its supply or ground serves no need. */
function isSignalOf(netlist: Netlist, host: string, end: string): boolean {
  const { ref, pin } = splitEnd(end);
  return ref === host && findPin(netlist.instance(ref)!.part, pin)?.role === "signal";
}

/** So many chips behind a board count as a place of their own; all further ones count as one place. */
const OWN_SIDES = 4;

/** Pairs of groups that can't be on one bus. */
function clashesOf(p: Problem): Problem["clashes"] {
  const out: Problem["clashes"] = [];
  for (const a of p.groups)
    for (const b of p.groups) {
      if (a.id >= b.id || a.kind !== b.kind) continue;
      if (isPointToPoint(a.kind)) out.push([a.id, b.id, oneEach(a.kind)]);
      const free = [a, b].find((g) => g.alone);
      if (free) out.push([a.id, b.id, `${free.ref} has no select line: it would take what is meant for others`]);
      const both = a.addresses.find((x) => b.addresses.includes(x));
      if (both) out.push([a.id, b.id, `both answer to address ${both}`]);
    }
  return out;
}

/**
 * Needs that a person wired by hand to a pin that can't serve them, or to one that another such wire has already: the checks speak
 * of them, and the plan of everything else is made round them. By need, the pin.
 */
function handWrong(
  project: Project,
  netlist: Netlist,
  hosts: readonly Instance[],
  slots: readonly Slot[],
): Map<string, string> {
  const out = new Map<string, string>();
  const byEnd = new Map(slots.map((s) => [s.end, s]));
  const held = new Map<string, string>();
  for (const l of project.links) {
    if (l.by !== "hand" || !l.locked) continue;
    for (const end of [l.from, l.to]) {
      const slot = byEnd.get(end);
      const { ref, pin } = splitEnd(farOf(l, end));
      const inst = netlist.instance(ref);
      const def = inst && findPin(inst.part, pin);
      if (!slot || !inst || !def?.need || hosts.includes(inst)) continue;
      const need = effectiveNeed(netlist, ref, def);
      const group = inst.part.groups.find((g) => isBusKind(g.kind) && Object.values(g.pins).includes(pin));
      const serves = waysToServe(slot.def, need, hostFacts(project, netlist, slot.at.ref, ref, group?.id)).some(
        (w) => w.ok,
      );
      const share = shareKey(need) ?? `${ref}.${pin}`;
      if (!serves || (held.get(end) ?? share) !== share) out.set(`${ref}.${pin}`, end);
      else held.set(end, share);
    }
  }
  return out;
}

/**
 * Collects the needs of all parts on a host and every pin that could serve each, with prices: pins of the host itself and
 * of what extends it. Locked links leave one choice; needs wired through other parts keep the pin that they reach; unlocked
 * wires may move at a price; optional pins are asked for when they are wired or wanted. With `standing` only the wired needs
 * that it picks are collected, each where it stands: enough to see what they share, at a fraction of the work.
 */
export function makeProblem(
  project: Project,
  netlist: Netlist,
  host: string,
  standing?: (need: Need) => boolean,
): Problem {
  const slots = slotsOf(netlist, host);
  const own = extenders(netlist, host)
    .slice(0, OWN_SIDES)
    .map((x) => x.ref);
  const sideOf = ({ at, def }: Slot) =>
    at.ref === host ? (def.at?.header ?? "") : own.includes(at.ref) ? at.ref : "behind";
  const problem: Problem = {
    ...emptyProblem(
      host,
      slots.map((x) => ({ ref: x.at.ref, label: x.def.label, header: sideOf(x) })),
    ),
    sideCost: WEIGHTS.side,
    orderCost: WEIGHTS.order,
  };
  const places = new Set(slots.map((x) => x.end));
  const hosts = [netlist.instance(host)!, ...extenders(netlist, host)];
  const scene: Scene = {
    project,
    netlist,
    host,
    slots,
    taken: standing
      ? new Set()
      : usedByHand(
          project,
          netlist,
          slots.map((x) => x.end),
        ),
    resources: new Resources(problem),
    scarcity: scarcityPrices(netlist.instance(host)!.part),
    steady: steadyRates(netlist.expanded.instances.values()),
    lines: new Map(hosts.map((h) => [h.ref, sharedLines(h.part)])),
    faces: new Map(hosts.map((h) => [h.ref, twoFaced(h.part)])),
  };
  const refs = new Set(hosts.map((h) => h.ref));
  const wrong = handWrong(project, netlist, hosts, slots);
  for (const end of wrong.values()) scene.taken.add(end);
  const led = followers(project, netlist, host);
  for (const inst of netlist.expanded.instances.values()) {
    if (inst.host !== host || !isWorked(inst) || inst.part.board) continue;
    const groupOf = new Map<string, { id: number; name: string }>();
    for (const g of inst.part.groups) {
      if (!isBusKind(g.kind)) continue;
      const id = problem.groups.length;
      const addresses = g.kind === "i2c" ? [...(g.address ? [g.address] : []), ...(g.also ?? [])] : [];
      problem.groups.push({
        id,
        ref: inst.ref,
        kind: g.kind,
        addresses: addresses.map((x) => x.toLowerCase()),
        ...(g.kind === "spi" && !g.pins.cs && { alone: true }),
      });
      for (const label of Object.values(g.pins)) groupOf.set(label, { id, name: g.id });
      // What this part's own channels carry sees the bus that the part itself is on.
      for (const pin of inst.part.pins)
        for (const o of pin.offers ?? [])
          if ("bus" in o && o.kind === g.kind) problem.under[`${inst.ref}:${o.bus}`] = id;
    }
    const wanted = entryOf(project, inst.ref)?.wanted ?? [];
    for (const pin of inst.part.pins) {
      if (!pin.need) continue;
      const id = `${inst.ref}.${pin.label}`;
      if (led.has(id) || wrong.has(id)) continue;
      const directs = linksAt(project, id).filter((l) => {
        const other = farOf(l, id);
        return places.has(other) || isSignalOf(netlist, host, other);
      });
      // What somebody decided goes before what was planned.
      const direct = directs.find((l) => l.locked) ?? directs[0];
      const through = direct ? undefined : netlist.bindings.find((b) => b.ref === inst.ref && b.pin === pin.label);
      if (through && !refs.has(through.host)) continue;
      if (!direct && !through && settledByHand(project, netlist, inst, pin, host)) continue;
      if (pin.need.optional && !direct && !through && !wanted.includes(pin.label)) continue;
      const at = direct
        ? direct.from === id
          ? direct.to
          : direct.from
        : through
          ? `${through.host}.${through.hostPin}`
          : null;
      const need = effectiveNeed(netlist, inst.ref, pin);
      if (standing && (!at || !standing(need))) continue;
      const group = isBusKind(need.kind) ? groupOf.get(pin.label) : undefined;
      const asker: Asker = {
        inst,
        need,
        group: group?.name,
        present: at && places.has(at) ? at : null,
        locked: direct?.locked || through || standing ? at : null,
        volts: drivenVolts(netlist, inst, pin),
      };
      const entry: ProblemNeed = {
        id,
        ref: inst.ref,
        need,
        share: shareKey(need),
        // A chip select is an ordinary pin: it belongs to its part, not to a bus instance.
        group: group?.id ?? null,
        locked: asker.locked,
        present: asker.present,
        choices: choicesOf(scene, asker),
      };
      problem.needs.push(entry);
    }
  }
  if (standing) return problem;
  problem.clashes = clashesOf(problem);
  for (const inst of netlist.expanded.instances.values())
    if (inst.host === host && !inst.inserted) problem.orders.push(...ordersOf(problem, inst.ref, inst.part));
  return problem;
}
