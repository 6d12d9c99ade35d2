import { findPin } from "../parts/catalogue";
import type { Circuit } from "../circuit";
import { evaluate, formatV, type Triple } from "../quantity";
import type { PowerLimit, Stage } from "../circuit/power";
import { groundOf, type Instance, type Net, type NetElement } from "../circuit/netlist";
import { elementsAt, netById, otherEnd } from "./graph";
import { label, linkedRefs, mA, round, wireUp } from "./help";
import { adapterFix, logicSupplyFix, outletsFor, ownSupply, ownSupplyFix, regulatorFix, ROOMY } from "./supply-fixes";
import { droppedOut } from "./regulators";
import { splitEnd } from "../project";
import { clashingNets } from "./sources";
import { blockedNets, swappedSupplies } from "./reversed";
import type { Finding, Fix, Rule } from "./types";

const isLinked = (c: Circuit, inst: Instance) => inst.inserted !== undefined || linkedRefs(c.project).has(inst.ref);

/**
 * The largest brightness at which this share of a limit holds: cap = (limit − everything else) / what full brightness adds.
 */
export function brightnessCap(c: Circuit, limit: PowerLimit, ref: string, share = 1): number | null {
  const inst = c.netlist.instance(ref);
  if (!inst || inst.vars.brightness === undefined) return null;
  const key = Object.keys(inst.part.supplies)[0]!;
  const peak = inst.part.supplies[key]?.mA?.peak ?? 0;
  const at = (b: number) => evaluate(peak, { ...inst.vars, brightness: b }) / 1000;
  const now = at(inst.vars.brightness);
  const mine = limit.loads.find((l) => l.ref === ref)?.flow.peak ?? now;
  const others = limit.flow.peak - mine;
  const scale = now > 0 ? mine / now : 1;
  const cap = ((limit.limit_A * share - others) / scale - at(0)) / (at(1) - at(0));
  return Math.max(0, Math.floor(Math.min(1, cap) * 100) / 100);
}

const limitId = (s: Stage) => `${s.ref}:${s.converter.from}>${s.converter.to}`;

function overloadFixes(c: Circuit, limit: PowerLimit, share = 1): Fix[] {
  const fixes: Fix[] = [];
  // Only what hangs on an overloaded regulator itself gains by one of its own; a tight one is kept, for its even levels.
  const rail = share < 1 ? undefined : c.power.stages.find((s) => limitId(s) === limit.id)?.to;
  for (const load of limit.loads.slice(0, 3)) {
    const inst = c.netlist.instance(load.ref);
    if (!inst || inst.part.board) continue;
    const cap = brightnessCap(c, limit, load.ref, share);
    if (cap !== null && cap >= 0.02 && cap < 1)
      fixes.push({
        id: `brightness-${load.ref}`,
        label: `Cap ${label(c, load.ref)} at ${Math.round(cap * 100)} % brightness`,
        edits: [{ type: "setOption", ref: load.ref, key: "brightness", value: cap }],
      });
    if (load.flow.peak > Math.min(0.1, limit.limit_A * 0.2))
      fixes.push(
        ...[...ownSupplyFix(c, load.ref, limit.net), ...regulatorFix(c, load.ref, rail)].map((f) => ({
          ...f,
          id: `${f.id}-${load.ref}`,
        })),
      );
  }
  return fixes;
}

const top = (limit: PowerLimit, c: Circuit) =>
  limit.loads
    .slice(0, 3)
    .map((l) => `${label(c, l.ref)} ${mA(l.flow.peak)}`)
    .join(", ");

const loadEvidence = (l: PowerLimit) => ({
  peak_mA: round(l.flow.peak * 1000, 1),
  typical_mA: round(l.flow.typ * 1000, 1),
  limit_mA: round(l.limit_A * 1000, 1),
});

const overload: Rule = {
  rule: "power.overload",
  says: "The peaks of everything that hangs on a source or regulator must fit its limit.",
  check: (c) =>
    c.power.limits
      .filter((l) => l.flow.peak > l.limit_A * 1.0001)
      .map((l): Finding => ({
        rule: "power.overload",
        severity: l.flow.typ > l.limit_A ? "stop" : "fault",
        at: [l.ref, ...l.loads.slice(0, 3).map((x) => x.ref)],
        message: `${label(c, l.ref)}, ${l.says}: ${mA(l.flow.peak)} at peak over a limit of ${mA(l.limit_A)} (${top(l, c)}).`,
        evidence: loadEvidence(l),
        fixes: overloadFixes(c, l),
      })),
};

/** Parts that take less than this of a limit are not what makes it tight. */
const OTHERS_SHARE = 0.1;
const others = (c: Circuit, l: PowerLimit) =>
  l.loads.reduce((s, x) => s + (c.netlist.instance(x.ref)?.part.board ? 0 : x.flow.peak), 0);

const tight: Rule = {
  rule: "power.tight",
  says: "Over 80 % of a limit leaves no room for what was not counted.",
  check: (c) =>
    c.power.limits
      .filter((l) => l.flow.peak <= l.limit_A * 1.0001 && l.flow.peak > l.limit_A * ROOMY)
      // What a board draws by itself is its maker's affair; what hangs on it beside is ours.
      .filter((l) => others(c, l) > l.limit_A * OTHERS_SHARE)
      // A part that was capped to fit a limit is at that limit on purpose.
      .filter(
        (l) =>
          !l.loads.some((x) => (c.netlist.instance(x.ref)?.vars.brightness ?? 1) < 1 && x.flow.peak > l.flow.peak / 2),
      )
      .map((l): Finding => ({
        rule: "power.tight",
        severity: "risk",
        at: [l.ref],
        message: `${label(c, l.ref)}, ${l.says}: ${mA(l.flow.peak)} at peak is ${Math.round((l.flow.peak / l.limit_A) * 100)} % of its ${mA(l.limit_A)} (${top(l, c)}).`,
        evidence: loadEvidence(l),
        fixes: overloadFixes(c, l, ROOMY),
      })),
};

const addUsb = (c: Circuit, inst: Instance): Fix[] => {
  const socket = inst.part.pins.find((p) => p.role === "cable");
  if (!socket || c.project.parts.some((p) => p.part.startsWith("supply/"))) return [];
  return [
    {
      id: "usb-port",
      label: "Feed the board from a USB port",
      edits: [
        { type: "addPart", part: "supply/usb-port", ref: "S1" },
        { type: "addLink", link: { from: "S1.USB", to: `${inst.ref}.${socket.label}` } },
      ],
    },
  ];
};

const wireFix = (c: Circuit, ref: string, words: string): Fix[] => {
  const edits = wireUp(c, ref);
  return edits.length ? [{ id: "wire-up", label: words, edits }] : [];
};

const noSupply: Rule = {
  rule: "power.no-supply",
  says: "Every part that draws current needs its supply pin on a rail that something feeds.",
  check: (c) => {
    const out: Finding[] = [];
    const deadNets = blockedNets(c);
    const blocked = (node: string) => deadNets.has(c.netlist.netOf(node).id);
    for (const inst of c.netlist.expanded.instances.values()) {
      if (!inst.part.board && !isLinked(c, inst)) continue;
      // A supply whose pins may all stay free, and do, is not missed.
      const idle = (k: string) => {
        const pins = inst.part.pins.filter((p) => p.supply === k);
        return (
          pins.length > 0 && pins.every((p) => p.optional && c.netlist.netOf(`${inst.ref}.${p.label}`).ends.length < 2)
        );
      };
      // What is fed at a pin of its own needs it, whether or not its data says how much it draws.
      const hasInlet = (k: string) =>
        !inst.part.board && inst.part.pins.some((p) => p.role === "supply-in" && p.supply === k);
      const dead = Object.entries(inst.part.supplies).find(
        ([k, s]) =>
          !s.source &&
          (s.mA || hasInlet(k)) &&
          !c.netlist.netOf(`${inst.ref}:${k}`).V &&
          !blocked(`${inst.ref}:${k}`) &&
          !idle(k),
      );
      if (!dead) continue;
      const pin = inst.part.pins.find((p) => p.role.startsWith("supply-") && p.supply === dead[0]);
      // A chip with one of several supply pins open is not dead, but what hangs on that pin is.
      const fed = Object.keys(inst.part.supplies).some((k) => c.netlist.netOf(`${inst.ref}:${k}`).V);
      // A board's signal pin gives a few milliamperes, and those only while the program says so.
      const signal = pin && c.netlist.netOf(`${inst.ref}.${pin.label}`).ends.find((e) => e.def.offers);
      out.push({
        rule: "power.no-supply",
        severity: "fault",
        at: [pin ? `${inst.ref}.${pin.label}` : inst.ref],
        message: `Nothing feeds ${fed && inst.part.board && pin ? `${pin.label} of ` : ""}${label(c, inst.ref)}: ${inst.part.board && !fed ? "the board has no supply" : signal ? `${pin.label} hangs on ${signal.ref}.${signal.pin}, a signal pin and no supply` : `${pin?.label ?? dead[0]} is on no rail that a source reaches`}.`,
        evidence: { supply: dead[0] },
        fixes: [
          ...(signal ? logicSupplyFix(c, inst.ref) : []),
          ...addUsb(c, inst),
          ...wireFix(c, inst.ref, `Wire ${label(c, inst.ref)}'s supply and ground`),
          ...(inst.part.board || signal ? [] : adapterFix(c, inst, dead[0])),
        ],
      });
    }
    return out;
  },
};

const noGround: Rule = {
  rule: "power.no-ground",
  says: "Current that goes in must come back: every fed part needs its ground wire.",
  check: (c) => {
    const out: Finding[] = [];
    for (const inst of c.netlist.expanded.instances.values()) {
      const ground = inst.part.pins.find((p) => p.role === "ground");
      if (!ground || inst.part.board || inst.part.id.startsWith("supply/") || !isLinked(c, inst)) continue;
      const net = c.netlist.netOf(`${inst.ref}.${ground.label}`);
      const another = (x: { ref: string }) =>
        x.ref !== inst.ref && c.netlist.instance(x.ref)?.inserted?.by !== inst.ref;
      if (net.ends.some(another) || net.nodes.some(another)) continue;
      out.push({
        rule: "power.no-ground",
        severity: "fault",
        at: [`${inst.ref}.${ground.label}`],
        message: `${label(c, inst.ref)} has no ground wire: ${ground.label} leads nowhere, so no current can return.`,
        evidence: { pin: ground.label },
        fixes: wireFix(c, inst.ref, `Wire ${inst.ref}.${ground.label} to ground`),
      });
    }
    return out;
  },
};

/** What a ground's current runs through on its way to another ground: switches and transistors; null when it never gets there. */
function groundSwitch(c: Circuit, from: Net, to: Net): NetElement[] | null {
  const seen = new Map<string, NetElement[]>([[from.id, []]]);
  for (const [here, way] of seen) {
    if (here === to.id) return way;
    for (const el of elementsAt(c, here)) {
      if (el.kind !== "contact" && el.kind !== "bjt" && el.kind !== "fet") continue;
      const far = otherEnd(el, here);
      if (![el.a, el.b].includes(here) || seen.has(far) || netById(c, far)?.kind === "supply") continue;
      seen.set(far, [...way, el]);
    }
  }
  return null;
}

const notCommon: Rule = {
  rule: "power.ground-not-common",
  says: "Two parts that exchange signals must share ground, or a high has no meaning.",
  check: (c) => {
    const seen = new Set<string>();
    return c.netlist.bindings.flatMap((b): Finding[] => {
      const inst = c.netlist.instance(b.ref)!;
      const host = c.netlist.instance(b.host)!;
      const ground = inst.part.pins.find((p) => p.role === "ground");
      const home = host.part.pins.find((p) => p.role === "ground");
      if (!ground || !home || seen.has(b.ref) || b.isolated) return [];
      const mine = c.netlist.netOf(`${b.ref}.${ground.label}`);
      const theirs = c.netlist.netOf(`${b.host}.${home.label}`);
      if (mine === theirs) return [];
      const alone = new Set([...mine.ends.map((e) => e.ref), ...mine.nodes.map((n) => n.ref)]).size < 2;
      if (alone || swapped(c, mine) || swapped(c, theirs)) return [];
      seen.add(b.ref);
      const through = groundSwitch(c, mine, theirs);
      if (through) {
        const by = [...new Set(through.map((e) => label(c, e.ref)))].join(" and ");
        return [
          {
            rule: "power.ground-not-common",
            severity: "risk",
            at: [`${b.ref}.${ground.label}`, ...new Set(through.map((e) => e.ref))],
            message: `${label(c, b.ref)}'s ground goes through ${by}. While that is open, the part is not off: its current finds a way through ${b.pin} and its other signals, and its levels mean nothing. Switch its supply wire instead, and leave the grounds joined.`,
            evidence: { signal: b.pin, through: by },
            fixes: [],
          },
        ];
      }
      return [
        {
          rule: "power.ground-not-common",
          severity: "fault",
          at: [`${b.ref}.${ground.label}`, `${b.host}.${home.label}`],
          message: `${label(c, b.ref)} and ${label(c, b.host)} exchange ${b.pin} but their grounds are not joined.`,
          evidence: { signal: b.pin },
          fixes: [
            {
              id: "join-grounds",
              label: `Join ${b.ref}.${ground.label} and ${b.host}.${home.label}`,
              edits: [{ type: "addLink", link: { from: `${b.ref}.${ground.label}`, to: `${b.host}.${home.label}` } }],
            },
          ],
        },
      ];
    });
  },
};

/** Sides of one part that a signal crosses without a wire: the grounds of both must not meet. */
const gaps = (c: Circuit): [string, Net, Net][] =>
  [...c.netlist.expanded.instances.values()].flatMap((i): [string, Net, Net][] => {
    const domains = [...new Set(i.part.pins.filter((p) => p.role === "ground").map((p) => p.domain ?? "gnd"))];
    if (domains.length < 2 || !i.part.channels.length) return [];
    const nets = domains.map((d) => c.netlist.netOf(`${i.ref}:ground:${d}`));
    return nets.slice(1).map((n): [string, Net, Net] => [i.ref, nets[0]!, n]);
  });

type Joined = [at: string[], who: string, nodes: (string | undefined)[]];

/** The ground nodes of a part's two sides: `M1:ground:near` and `M1:ground:far`. */
const sidesOf = (c: Circuit, ref: string) =>
  [
    ...new Set(
      c.netlist
        .instance(ref)!
        .part.pins.filter((p) => p.role === "ground")
        .map((p) => p.domain ?? "gnd"),
    ),
  ].map((d) => `${ref}:ground:${d}`);
const groundNode = (c: Circuit, member: string) => {
  const ref = member.split(".")[0]!;
  const domain = groundOf(c.netlist, member)?.nodes.find((n) => n.ref === ref && n.ground)?.ground;
  return domain && `${ref}:ground:${domain}`;
};

/** Wires any one of which, taken out, parts two grounds that must not meet. */
function partFix(c: Circuit, nodes: (string | undefined)[]): Fix[] {
  const [from, to] = nodes;
  if (!from || !to) return [];
  const nodeOf = (end: string) => {
    const { ref, pin } = splitEnd(end);
    const def = c.netlist.instance(ref)?.part.pins.find((p) => p.label === pin || p.aliases?.includes(pin));
    return def && (def.role === "ground" || def.role === "cable") ? `${ref}:ground:${def.domain ?? "gnd"}` : null;
  };
  const wires = c.project.links.flatMap((l) => {
    const [a, b] = [nodeOf(l.from), nodeOf(l.to)];
    return a && b && a !== b ? [{ l, a, b }] : [];
  });
  const meets = (without: (typeof wires)[number]) => {
    const seen = new Set([from]);
    for (const at of seen)
      for (const w of wires)
        if (w !== without)
          for (const [x, y] of [
            [w.a, w.b],
            [w.b, w.a],
          ] as const)
            if (x === at) seen.add(y);
    return seen.has(to);
  };
  // Taking a part's only ground wire would mend nothing.
  const lonely = (node: string, w: (typeof wires)[number]) =>
    !wires.some((x) => x !== w && (x.a === node || x.b === node));
  return wires
    .filter((w) => !/USB/.test(w.l.from) && !meets(w) && !lonely(w.a, w) && !lonely(w.b, w))
    .slice(0, 3)
    .map(({ l }) => ({
      id: `part-${l.from}-${l.to}`,
      label: `Take out the wire from ${l.from} to ${l.to}`,
      edits: [{ type: "removeLink", from: l.from, to: l.to }],
    }));
}

const joined: Rule = {
  rule: "power.ground-joined",
  says: "Grounds that are meant to stay apart must not meet anywhere: one wire undoes the isolation.",
  check: (c) => {
    const inside = gaps(c)
      .filter(([, a, b]) => a === b)
      .map(([ref]): Joined => [[ref], `both sides of ${label(c, ref)}`, sidesOf(c, ref)]);
    const lists = c.project.isolated;
    // One wire joins every member of both lists: the first pair is told.
    const stated = lists.flatMap((list, i) =>
      lists.slice(i + 1).flatMap((other) =>
        list
          .flatMap((a) =>
            other.flatMap((b): Joined[] => {
              const [x, y] = [groundOf(c.netlist, a), groundOf(c.netlist, b)];
              const nodes = [groundNode(c, a), groundNode(c, b)];
              return x && x === y ? [[[a, b], `${a} and ${b}`, nodes]] : [];
            }),
          )
          .slice(0, 1),
      ),
    );
    return [...inside, ...stated].map(([at, who, nodes]): Finding => ({
      rule: "power.ground-joined",
      severity: "stop",
      at,
      message: `The grounds of ${who} are joined, but are meant to be isolated. Find the wire that joins them, or do without isolation.`,
      evidence: { places: at.join(" ") },
      fixes: partFix(c, nodes),
    }));
  },
};

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

const range: Rule = {
  rule: "power.range",
  says: "A part's supply must lie inside its range, at both ends of the source's tolerance.",
  check: (c) => {
    const out: Finding[] = [];
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
          fixes: rangeFixes(c, inst, key),
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
  if (!goal || !V) return [];
  const ends = [...new Set([end, ...(from ? neighbours(c, from, V) : [])])];
  const moved = ends.filter((e) => !own || e !== end);
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
  ];
}

/** A part or supply with plus and minus exchanged is told by `part.reversed`. */
const swapped = (c: Circuit, n: Net) => {
  const refs = swappedSupplies(c).map((x) => x.ref);
  return n.nodes.some((x) => refs.includes(x.ref));
};

const short: Rule = {
  rule: "power.short",
  says: "A supply must never be joined to ground.",
  check: (c) => {
    // A one-wire sensor's supply pin belongs at ground when the data wire feeds it: `onewire.parasitic` speaks of that.
    const shorted = (n: Net) =>
      n.nodes.filter((x) => x.supply && !c.netlist.instance(x.ref)!.part.groups.some((g) => g.kind === "onewire"));
    return c.netlist.nets
      .filter((n) => n.kind === "ground" && shorted(n).length > 0 && !swapped(c, n))
      .map((n): Finding => {
        const supply = shorted(n)[0]!;
        const refs = new Set(shorted(n).map((x) => x.ref));
        const bad = c.project.links.filter((l) => {
          const roles = [l.from, l.to].map(
            (e) => c.netlist.netOf(e)?.ends.find((x) => `${x.ref}.${x.pin}` === e)?.def.role,
          );
          return roles.includes("ground") && roles.some((r) => r?.startsWith("supply-"));
        });
        return {
          rule: "power.short",
          severity: "stop",
          at: bad.length ? bad.flatMap((l) => [l.from, l.to]) : [...refs],
          message: `The supply ${supply.supply} of ${label(c, supply.ref)} is joined to ground: a short circuit. Do not power this.`,
          evidence: { supply: `${supply.ref}:${supply.supply}` },
          fixes: bad.map((l) => ({
            id: `remove-${l.from}-${l.to}`,
            label: `Take out the wire from ${l.from} to ${l.to}`,
            edits: [{ type: "removeLink", from: l.from, to: l.to }],
          })),
        };
      });
  },
};

export const powerRules: Rule[] = [overload, tight, noSupply, noGround, notCommon, joined, range, short];
