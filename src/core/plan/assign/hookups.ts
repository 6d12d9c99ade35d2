import { circuitOf } from "../../circuit";
import { evaluate, type Triple } from "../../quantity";

import { partKind, type Catalogue, type Part, type Pin } from "../../parts/catalogue";
import {
  clampsToSupply,
  isolationBroken,
  INJECTION_MA,
  isPlugged,
  logicSupplyPin,
  type Instance,
  type Netlist,
} from "../../circuit/netlist";
import { defaultHost, farOf, houseRule, linksAt, partLookup, splitEnd, type Link, type Project } from "../../project";
import { recommendedCompanions } from "./companions";
import { attachPoint, settledByHand } from "./collect";

/** A link that the planner makes, with its reason. */
export interface PlannedLink extends Link {
  why: string;
}

const linked = (links: readonly Link[], end: string) => links.some((l) => l.from === end || l.to === end);

/** Whether a supply or ground pin belongs to the board's side; the far side of an isolator is for the person to feed. */
const isNear = (part: Part, p: Pin) =>
  (p.role === "ground" ? (p.domain ?? "gnd") : (part.supplies[p.supply ?? ""]?.domain ?? "gnd")) === "gnd";

/** Pins that must be linked for a part to count as wired. */
export function openPins(project: Project, netlist: Netlist, inst: Instance): Pin[] {
  return inst.part.pins.filter((p) => {
    const wants = p.need || ((p.role === "supply-in" || p.role === "ground") && isNear(inst.part, p)) || p.hook;
    return (
      wants &&
      !p.optional &&
      !p.need?.optional &&
      !(p.need && settledByHand(project, netlist, inst, p, inst.host ?? "")) &&
      !linked(project.links, attachPoint(project, netlist, `${inst.ref}.${p.label}`))
    );
  });
}

/** Grounds and supply pins that are one inside the part need one wire only. */
function alreadyJoined(project: Project, inst: Instance, pin: Pin): boolean {
  const same = (p: Pin) =>
    pin.role === "ground"
      ? p.role === "ground" && (p.domain ?? "gnd") === (pin.domain ?? "gnd")
      : p.role.startsWith("supply-") && p.supply === pin.supply;
  return inst.part.pins.some((p) => same(p) && linked(project.links, `${inst.ref}.${p.label}`));
}

interface Outlet {
  ref: string;
  pin: string;
  /** Where a wire goes: the pin, or the free leg of the switch, diode or fuse that stands behind it. */
  end: string;
  V: Triple;
  room_A: number;
  host: boolean;
}

/** A module with a USB plug of its own feeds itself, and nothing else unasked. */
const hasPlug = (i: Instance) =>
  i.part.pins.some((p) => p.role === "cable") && !Object.values(i.part.supplies).some((s) => s.source);

function outlets(netlist: Netlist, project: Project, catalogue: Catalogue, host: string): Outlet[] {
  const { power } = circuitOf(project, catalogue);
  const out: Outlet[] = [];
  for (const inst of netlist.expanded.instances.values()) {
    // Supplies, and regulators and plugs that are fed themselves.
    if (inst.ref !== host && (inst.part.board || inst.inserted)) continue;
    if (inst.ref !== host && (isPlugged(inst, project) || hasPlug(inst))) continue;
    for (const p of inst.part.pins) {
      if (p.role !== "supply-out" && p.role !== "supply-io") continue;
      const net = netlist.netOf(`${inst.ref}:${p.supply}`);
      if (!net.V || out.some((o) => o.ref === inst.ref && netlist.netOf(`${o.ref}.${o.pin}`) === net)) continue;
      const limits = power.limits.filter((l) => l.net === net.id);
      const room = Math.min(Infinity, ...limits.map((l) => l.limit_A - l.flow.peak));
      const end = behindSwitch(netlist, project, `${inst.ref}.${p.label}`);
      out.push({ ref: inst.ref, pin: p.label, end, V: net.V, room_A: room, host: inst.ref === host });
    }
  }
  return out;
}

/** The free leg of a switch, diode or fuse that somebody put behind a supply's pin; the pin itself where nothing stands there. */
function behindSwitch(netlist: Netlist, project: Project, end: string): string {
  const links = project.links.filter((l) => l.from === end || l.to === end);
  for (const l of links) {
    const { ref, pin } = splitEnd(l.from === end ? l.to : l.from);
    const part = netlist.instance(ref)?.part;
    if (!part || part.pins.length !== 2 || !part.elements.some((e) => e.kind === "contact" || e.kind === "diode"))
      continue;
    const other = part.pins.find((p) => p.label !== pin && !p.aliases?.includes(pin));
    const backwards = part.elements.some((e) => e.kind === "diode" && e.b === pin);
    if (other && !backwards && !linked(project.links, `${ref}.${other.label}`)) return `${ref}.${other.label}`;
  }
  return end;
}

/** Whether an outlet suits a part's supply pin at all, and how badly: the lower the better. */
function scoreOf(o: Outlet, inst: Instance, pin: Pin, logicV: number, ownSupply: boolean): number | null {
  const s = inst.part.supplies[pin.supply!]!;
  const [min, max] = [evaluate(s.V.min, inst.vars), evaluate(s.V.max, inst.vars)];
  if (o.V.typ < min || o.V.typ > max || o.V.max > (s.absMax_V ?? max) + 1e-9) return null;
  const peak = s.mA ? evaluate(s.mA.peak, inst.vars) / 1000 : 0;
  const heavy = isHeavy(inst, pin);
  const typ = evaluate(s.V.typ, inst.vars);
  // Where the part's signals have this supply's level, a full rail is the lesser evil: its heavy part can move.
  const rides = Object.values(inst.part.levels).some((l) => l.supply === pin.supply);
  return (
    (o.V.min >= min && o.V.max <= max ? 0 : 20) +
    (o.room_A < peak ? 15 : 0) +
    (heavy && ownSupply && o.host ? 30 : 0) +
    (!heavy && !o.host ? 8 : 0) +
    (s.forLoads ? Math.min(6, Math.abs(o.V.typ - typ)) : Math.abs(o.V.typ - logicV) < 0.25 ? 0 : rides ? 18 : 4)
  );
}

/** What draws more than this at its peak, or feeds loads, goes to a supply of its own when there is one, amperes. */
const HEAVY_A = 0.3;
const isHeavy = (inst: Instance, pin: Pin) => {
  const s = inst.part.supplies[pin.supply!]!;
  return (s.mA ? evaluate(s.mA.peak, inst.vars) / 1000 : 0) > HEAVY_A || (s.forLoads ?? false);
};

function chooseOutlet(
  list: Outlet[],
  inst: Instance,
  pin: Pin,
  logicV: number,
  ownSupply: boolean,
): { at: Outlet; why: string } | null {
  const fits = list.flatMap((o) => {
    const score = scoreOf(o, inst, pin, logicV, ownSupply);
    return score === null ? [] : [{ o, score }];
  });
  const at = [...fits].sort((a, b) => a.score - b.score)[0]?.o;
  if (!at) return null;
  const s = inst.part.supplies[pin.supply!]!;
  const [min, max] = [evaluate(s.V.min, inst.vars), evaluate(s.V.max, inst.vars)];
  const peak = s.mA ? evaluate(s.mA.peak, inst.vars) / 1000 : 0;
  const volts = `${at.V.typ.toFixed(1)} V`;
  const why = isHeavy(inst, pin)
    ? `${inst.label} ${s.forLoads ? "feeds loads from here" : `may draw ${Math.round(peak * 1000)} mA`}: ${at.host ? "no separate supply is in the list, so it takes" : "it gets its own supply,"} ${at.ref}.${at.pin}`
    : Math.abs(at.V.typ - logicV) < 0.25
      ? `${volts} suits ${inst.label} and matches the board's logic level`
      : `${inst.label} needs ${min} to ${max} V: ${at.ref}.${at.pin} gives ${volts}`;
  return { at, why };
}

/** A rail that is so much better is worth a wire that was planned before. */
const WORTH_MOVING = 10;

/**
 * Supply wires that the planner made itself are thought of again: where a much better rail has come (a supply of its own for a
 * heavy part, a rail with room), the part's planned supply and ground wires are taken back, so that they are laid anew. Wires of
 * a person stay, and so does a part that hangs on one.
 */
function rethought(project: Project, catalogue: Catalogue): Project {
  const mayMove = (l: Link) => l.by === "plan" && !l.locked;
  if (!project.links.some(mayMove)) return project;
  const { netlist } = circuitOf(project, catalogue);
  const ownSupply = houseRule(project, "strips") === "own-supply";
  const gone = new Set<Link>();
  // Only what was not there when the wires were planned is a reason to think again.
  const isFresh = (o: Outlet) =>
    !o.host && !project.links.some((l) => mayMove(l) && [l.from, l.to].some((e) => splitEnd(e).ref === o.ref));
  for (const inst of netlist.expanded.instances.values()) {
    const home = inst.host ? netlist.instance(inst.host) : undefined;
    if (inst.inserted || inst.part.board || inst.part.id.startsWith("supply/") || !home?.part.board) continue;
    const logicV = netlist.netOf(`${home.ref}:${home.part.board.logicSupply}`).V?.typ ?? 5;
    for (const pin of inst.part.pins) {
      if (pin.role !== "supply-in") continue;
      const [wire, ...more] = linksAt(project, `${inst.ref}.${pin.label}`);
      if (!wire || more.length || !mayMove(wire)) continue;
      const peak = evaluate(inst.part.supplies[pin.supply!]?.mA?.peak ?? 0, inst.vars) / 1000;
      const here = farOf(wire, `${inst.ref}.${pin.label}`);
      // What the part itself takes is room that it would find there.
      const list = outlets(netlist, project, catalogue, home.ref)
        .filter((o) => o.ref !== inst.ref)
        .map((o) => (o.end === here ? { ...o, room_A: o.room_A + peak } : o));
      const now = list.find((o) => o.end === here);
      const best = chooseOutlet(list, inst, pin, logicV, ownSupply)?.at;
      if (!now || !best || best === now || !isFresh(best)) continue;
      const [was, would] = [now, best].map((o) => scoreOf(o, inst, pin, logicV, ownSupply) ?? Infinity);
      if (was! - would! < WORTH_MOVING) continue;
      gone.add(wire);
      for (const p of inst.part.pins)
        if (p.role === "ground" && isNear(inst.part, p))
          for (const l of linksAt(project, `${inst.ref}.${p.label}`)) if (mayMove(l)) gone.add(l);
    }
  }
  return gone.size ? { ...project, links: project.links.filter((l) => !gone.has(l)) } : project;
}

/**
 * How a board without its USB cable is fed: an outlet and the board's pin that takes its voltage, the board's logic
 * rail first, then the inlet with the narrowest range. A bare chip gets every supply pin.
 */
function boardFeed(inst: Instance, list: Outlet[]): { at: Outlet; inlets: string[] } | null {
  const takes = (p: Pin, o: Outlet) => {
    const s = inst.part.supplies[p.supply!]!;
    const [min, max] = [evaluate(s.V.min, inst.vars), evaluate(s.V.max, inst.vars)];
    return o.V.typ >= min && o.V.typ <= max && o.V.max <= Math.max(max, s.absMax_V ?? 0) + 1e-9;
  };
  const socket = inst.part.pins.find((p) => p.role === "cable")?.supply;
  const pins = inst.part.pins.filter((p) => (p.role === "supply-in" || p.role === "supply-io") && !p.optional);
  const width = (p: Pin) => {
    const V = inst.part.supplies[p.supply!]!.V;
    return evaluate(V.max, inst.vars) - evaluate(V.min, inst.vars);
  };
  const order = (p: Pin) => (p.supply === socket ? 1000 : 0) + width(p);
  const ways = list.flatMap((at) =>
    pins
      .filter((p) => takes(p, at))
      .map((p) => ({ at, p, score: order(p) - Math.min(at.room_A, 3) * 0.01 + Math.abs(at.V.typ - 5) * 0.1 })),
  );
  const best = ways.sort((a, b) => a.score - b.score)[0];
  if (!best) return null;
  const others = partKind(inst.part.id) === "chip" ? pins.filter((p) => p !== best.p && takes(p, best.at)) : [];
  return { at: best.at, inlets: [best.p, ...others].map((p) => p.label) };
}

/** A second supply pin of a chip: behind a switch that is used up, at the first pin. */
const afterSwitch = (at: Outlet, ref: string, first: string) =>
  at.end === `${at.ref}.${at.pin}` ? at.end : `${ref}.${first}`;

/** What keeps the current into an unpowered input at what its clamp stands, from 3.3 V and from 5 V alike. */
const INPUT_OHM = 330;

/**
 * A part on a supply of its own gets a resistor in each signal that the board drives: while that supply is off, the signals
 * would feed the part through its inputs. Inputs that bear it, and parts that have a resistor already, are left alone.
 */
function withInputResistors(project: Project, inst: Instance, home: Instance, netlist: Netlist): Project {
  const entry = project.parts.find((p) => p.ref === inst.ref);
  const pins = inst.part.pins.filter((p) => {
    const level = p.level ? inst.part.levels[p.level] : undefined;
    const drives = p.io === "in" && p.need && !p.need.optional && p.need.kind !== "i2c";
    return drives && clampsToSupply(level) && (level?.injection_mA ?? INJECTION_MA) <= INJECTION_MA;
  });
  const gap = inst.part.pins.some((p) => p.role === "ground" && (p.domain ?? "gnd") !== "gnd");
  if (!entry || !pins.length || gap || entry.companions?.seriesResistor !== undefined) return project;
  // A level shifter in the wire is fed with the part, and stands between already.
  if (entry.companions?.shifter || !netlist.instance(home.ref)) return project;
  const owned = project.drawer.resistors_ohm.filter((v) => v >= 270 && v <= 560);
  const ohm = owned.length ? Math.min(...owned) : INPUT_OHM;
  const value = { ohm, pins: pins.map((p) => p.label) };
  return {
    ...project,
    parts: project.parts.map((p) =>
      p.ref === inst.ref ? { ...p, companions: { ...p.companions, seriesResistor: value } } : p,
    ),
  };
}

/**
 * Where a pin that is tied high belongs: to what the part's own logic runs from. Its own supply's outlet when the pin rides on
 * that, else an outlet of that voltage; nothing when there is none that the pin would bear.
 */
function tieFor(netlist: Netlist, list: Outlet[], project: Project, inst: Instance, pin: Pin): string | null {
  const level = inst.part.levels[pin.level ?? ""];
  const own = level && netlist.netOf(`${inst.ref}:${level.supply}`);
  if (!level || !own?.V) return null;
  const inlet = inst.part.pins.find((p) => p.role.startsWith("supply-") && p.supply === level.supply);
  const end = inlet && `${inst.ref}.${inlet.label}`;
  const wire = end && project.links.find((l) => l.from === end || l.to === end);
  if (wire) return wire.from === end ? wire.to : wire.from;
  if (inlet?.role === "supply-out") return `${inst.ref}.${inlet.label}`;
  /** What the part's logic runs from at least while this outlet stands at its highest: behind its own regulator the two go together. */
  const least_V = (o: Outlet): number => {
    const at = netlist.netOf(`${o.ref}.${o.pin}`);
    const behind = inst.part.converters.find(
      (k) => k.to === level.supply && k.kind === "linear" && netlist.netOf(`${inst.ref}:${k.from}`) === at,
    );
    if (!behind) return own.V!.min;
    const kept = o.V.max - (behind.dropout_V ?? 0);
    return behind.V ? Math.min(kept, evaluate(behind.V.min, inst.vars)) : kept;
  };
  const most = (o: Outlet) => evaluate(level.absMax, { ...inst.vars, V: least_V(o) });
  const least = level.VIH === undefined ? 0 : evaluate(level.VIH, { ...inst.vars, V: own.V.max });
  const far = (o: Outlet) => Math.abs(o.V.typ - own.V!.typ);
  const fits = list.filter((o) => o.ref !== inst.ref && o.V.max <= most(o) + 1e-9 && o.V.min >= least);
  const best = [...fits].sort((a, b) => far(a) - far(b))[0];
  return best ? best.end : null;
}

/** A programmer's lines by the hook that its pins have. */
const PROGRAMMER_LINES: Partial<Record<NonNullable<Pin["hook"]>, "mosi" | "miso" | "sck" | "reset">> = {
  "isp-mosi": "mosi",
  "isp-miso": "miso",
  "isp-sck": "sck",
  "isp-reset": "reset",
};

const firstGround = (inst: Instance) => inst.part.pins.find((p) => p.role === "ground")?.label;

/**
 * Plans everything but the signal pins: the companions that each part wants, the cable, supplies, grounds and the far
 * ends of contacts and lights. Parts whose pins are all linked are taken as wired and left alone.
 */
export function planHookups(project: Project, catalogue: Catalogue): { project: Project; planned: PlannedLink[] } {
  const planned: PlannedLink[] = [];
  const host = defaultHost(project, partLookup(project, catalogue));
  if (!host) return { project, planned };
  project = rethought(project, catalogue);
  let now = project;
  const net = () => circuitOf(now, catalogue).netlist;
  const link = (from: string, to: string, why: string) => {
    const next = { ...now, links: [...now.links, { from, to }] };
    // What the project keeps apart no wire of the planner's joins.
    const joins = (p: Project) => isolationBroken(circuitOf(p, catalogue).netlist, project);
    if (project.isolated.length && joins(next) && !joins(now)) return;
    planned.push({ from, to, why });
    now = next;
  };
  // Worked out once and kept while only loads join: what a load takes is taken off what an outlet has left.
  let kept: { host: string; list: Outlet[] } | null = null;
  const outletsOf = (ref: string): Outlet[] => {
    if (kept?.host !== ref) kept = { host: ref, list: outlets(net(), now, catalogue, ref) };
    return kept.list;
  };
  const joined = (inst: Instance, pin: Pin, at: Outlet) => {
    const gives = inst.part.converters.length > 0 || inst.part.pins.some((p) => p.role === "supply-out");
    if (gives || at.end !== `${at.ref}.${at.pin}`) {
      kept = null;
      return;
    }
    const mA = inst.part.supplies[pin.supply!]?.mA;
    const peak = mA ? evaluate(mA.peak, inst.vars) / 1000 : 0;
    for (const o of kept?.list ?? []) if (o.ref === at.ref) o.room_A -= peak;
  };

  const before = net();
  const open = new Set(
    [...before.expanded.instances.values()].filter((i) => openPins(project, before, i).length).map((i) => i.ref),
  );
  const hasResistor = (ref: string) =>
    project.links.some(
      (l) =>
        [l.from, l.to].some((e) => splitEnd(e).ref === ref) &&
        [l.from, l.to].some((e) => before.instance(splitEnd(e).ref)?.part.id === "discrete/resistor"),
    );
  // One after the other: what one part of a bus brings, such as its pull-up, the next need not bring again.
  for (const p of now.parts) {
    if (!open.has(p.ref)) continue;
    const extra = recommendedCompanions(now, p, catalogue, before.instance(p.ref)?.host);
    if (hasResistor(p.ref)) delete extra.seriesResistor;
    if (!Object.keys(extra).length) continue;
    const companions = { ...p.companions, ...extra };
    now = { ...now, parts: now.parts.map((x) => (x.ref === p.ref ? { ...x, companions } : x)) };
  }

  // Instances and what stands in their wires: no wire changes those.
  const still = net();
  for (const ref of before.expanded.hosts) {
    const inst = before.instance(ref)!;
    const socket = inst.part.pins.find((p) => p.role === "cable");
    const powered = inst.part.board && net().netOf(`${ref}:${inst.part.board.logicSupply}`).V;
    if (powered) continue;
    const sources = [...before.expanded.instances.values()].filter((i) => i.part.id.startsWith("supply/"));
    const usb = sources.find(
      (i) =>
        i.part.pins.some((p) => p.role === "cable") &&
        !now.links.some((l) => l.from === `${i.ref}.USB` || l.to === `${i.ref}.USB`),
    );
    const plug = usb?.part.pins.find((p) => p.role === "cable")?.label;
    if (socket && usb && plug) {
      link(`${usb.ref}.${plug}`, `${ref}.${socket.label}`, "the USB cable feeds the board and carries uploads");
      continue;
    }
    const feed = boardFeed(
      inst,
      outlets(net(), now, catalogue, ref).filter((o) => !o.host),
    );
    const from = feed && net().instance(feed.at.ref);
    if (!feed || !from) continue;
    const what = from.label;
    for (const [i, inlet] of feed.inlets.entries())
      link(
        i ? afterSwitch(feed.at, ref, feed.inlets[0]!) : feed.at.end,
        `${ref}.${inlet}`,
        i
          ? `${inlet} is a second supply pin of the chip`
          : `${feed.at.V.typ.toFixed(1)} V from ${what} feeds the board`,
      );
    const grounds = inst.part.pins.filter((p) => p.role === "ground").map((p) => p.label);
    for (const g of partKind(inst.part.id) === "chip" ? grounds : grounds.slice(0, 1))
      if (!linked(now.links, `${ref}.${g}`))
        link(`${from.ref}.${firstGround(from)}`, `${ref}.${g}`, `${what} and the board share ground`);
  }

  const volts = new Map<string, number>();
  const logicVolts = (home: Instance): number => {
    const there = volts.get(home.ref);
    if (there !== undefined) return there;
    const V = net().netOf(`${home.ref}:${home.part.board!.logicSupply}`).V?.typ ?? 5;
    volts.set(home.ref, V);
    return V;
  };
  const work = now.parts.flatMap(({ ref }) => {
    const inst = still.instance(ref);
    if (!inst || inst.part.board || inst.part.id.startsWith("supply/") || !open.has(ref)) return [];
    const home = still.instance(inst.host ?? host);
    return home ? [{ ref, inst, home }] : [];
  });
  for (const { ref, inst, home } of work) {
    const logicV = logicVolts(home);
    for (const pin of inst.part.pins) {
      const end = `${ref}.${pin.label}`;
      if (linked(now.links, end) || alreadyJoined(now, inst, pin) || pin.optional || !isNear(inst.part, pin)) continue;
      if (pin.role === "supply-in") {
        const list = outletsOf(home.ref).filter((o) => o.ref !== ref);
        const found = chooseOutlet(list, inst, pin, logicV, houseRule(project, "strips") === "own-supply");
        if (found) {
          link(end, found.at.end, found.why);
          joined(inst, pin, found.at);
        }
        if (found && !found.at.host && !inst.part.supplies[pin.supply!]?.forLoads)
          now = withInputResistors(now, inst, home, still);
      }
    }
  }
  // From here on no wire changes a voltage: what is tied high is judged by the circuit as it is fed now.
  const fed = net();
  const sharedGround = new Set<string>();
  for (const { ref, inst, home } of work) {
    for (const pin of inst.part.pins) {
      const end = `${ref}.${pin.label}`;
      if (linked(now.links, end) || alreadyJoined(now, inst, pin) || pin.optional || !isNear(inst.part, pin)) continue;
      const target = attachPoint(now, still, end);
      if (pin.role === "ground") {
        const feed = now.links
          .filter((l) =>
            inst.part.pins.some(
              (p) =>
                p.role === "supply-in" &&
                isNear(inst.part, p) &&
                (l.from === `${ref}.${p.label}` || l.to === `${ref}.${p.label}`),
            ),
          )
          .map((l) => splitEnd(splitEnd(l.from).ref === ref ? l.to : l.from).ref)
          .map((r) => still.instance(r))
          .find((i) => i && firstGround(i) && i.ref !== home.ref);
        const to = feed ?? home;
        link(target, `${to.ref}.${firstGround(to)}`, `${inst.label}'s ground returns to where its supply comes from`);
        if (feed && houseRule(project, "grounds") === "joined") {
          const [theirs, ours] = [`${feed.ref}.${firstGround(feed)}`, `${home.ref}.${firstGround(home)}`];
          // Asked once a pair: no wire that follows parts them again.
          const pair = `${theirs} ${ours}`;
          if (!sharedGround.has(pair) && net().netOf(theirs) !== net().netOf(ours))
            link(theirs, ours, "separately powered parts that talk share ground");
          sharedGround.add(pair);
        }
      }
      const line = pin.hook && PROGRAMMER_LINES[pin.hook];
      if (line) {
        const chip = home.part.board?.programming;
        // The chip's pins have other uses of the same names: these are the programmer's.
        if (chip)
          link(
            target,
            `${home.ref}.${chip[line]}`,
            `the programmer's ${pin.label} is ${chip[line]} of ${home.part.board!.chip}`,
          );
        continue;
      }
      if (pin.hook === "own-pin") {
        link(target, `${ref}.${pin.hookPin}`, pin.says ? `${pin.label}: ${pin.says}` : `${pin.label} is held there`);
        continue;
      }
      const entry = now.parts.find((p) => p.ref === ref);
      const toGround = pin.hook === "ground" || (pin.hook === "button-return" && !entry?.companions?.pullDown);
      if (pin.hook && toGround)
        link(
          target,
          `${home.ref}.${firstGround(home)}`,
          pin.hook === "ground"
            ? `${inst.label}'s ${pin.label} goes to ground`
            : "the contact pulls the pin to ground; the pull-up lets it go",
        );
      const tie = pin.role === "signal" && pin.hook !== "ground" && pin.hook !== "button-return";
      if (pin.hook && tie) {
        const to = tieFor(fed, outletsOf(home.ref), now, inst, pin);
        if (to)
          link(target, to, pin.says ? `${pin.label}: ${pin.says}` : `${pin.label} is held at the part's own supply`);
      } else if (pin.hook === "logic-supply" || (pin.hook === "button-return" && !toGround))
        link(
          target,
          `${home.ref}.${logicSupplyPin(home.part)}`,
          "the contact lifts the pin to the board's logic voltage; the pull-down lets it go",
        );
    }
  }
  return { project: now, planned };
}
