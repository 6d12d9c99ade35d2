import type { Circuit } from "../circuit";
import type { Pin } from "../parts/catalogue";
import { isPlugged, logicSupplyPin, type Instance, type Net } from "../circuit/netlist";
import { nextRef, type BasicEdit } from "../project";
import { evaluate } from "../quantity";
import { label, owner } from "./help";
import type { Fix } from "./types";

const groundOf = (i: Instance | undefined, domain = "gnd") =>
  i?.part.pins.find((p) => p.role === "ground" && (p.domain ?? "gnd") === domain);
const addLink = (from: string, to: string): BasicEdit => ({ type: "addLink", link: { from, to } });

/** The supply pin that a part is fed at: the first that is not meant for loads. */
const inlet = (inst: Instance) => {
  const pins = inst.part.pins.filter((p) => p.role === "supply-in");
  return pins.find((p) => !inst.part.supplies[p.supply!]?.forLoads) ?? pins[0];
};

/** Edits that move a part's supply to another outlet, at every pin of that supply that is wired; its other supplies stay. */
export function moveSupply(c: Circuit, inst: Instance, to: string, first = inlet(inst)): BasicEdit[] {
  if (!first) return [];
  const ends = inst.part.pins
    .filter((p) => p.role === "supply-in" && p.supply === first.supply)
    .map((p) => `${inst.ref}.${p.label}`);
  const links = c.project.links.filter((l) => ends.includes(l.from) || ends.includes(l.to));
  const wired = ends.filter((e) => links.some((l) => l.from === e || l.to === e));
  return [
    ...links.map((l): BasicEdit => ({ type: "removeLink", from: l.from, to: l.to })),
    ...(wired.length ? wired : ends.slice(0, 1)).map((end) => addLink(end, to)),
  ];
}

/** A fix that feeds a part from its host's logic supply, when its range allows. */
export function logicSupplyFix(c: Circuit, ref: string): Fix[] {
  const inst = c.netlist.instance(owner(c, ref));
  const host = inst?.host ? c.netlist.instance(inst.host) : undefined;
  const to = host && logicSupplyPin(host.part);
  const pin = inst && inlet(inst);
  if (!inst || !host || !to || !pin) return [];
  const there = [`${inst.ref}.${pin.label}`, `${host.ref}.${to}`];
  if (c.project.links.some((l) => there.includes(l.from) && there.includes(l.to))) return [];
  const V = c.netlist.netOf(`${host.ref}.${to}`).V;
  const range = inst.part.supplies[pin.supply!]!.V;
  if (!V || V.min < evaluate(range.min, inst.vars) || V.max > evaluate(range.max, inst.vars)) return [];
  return [
    {
      id: "logic-supply",
      label: `Feed ${label(c, inst.ref)} from ${host.ref}.${to}`,
      edits: moveSupply(c, inst, `${host.ref}.${to}`),
    },
  ];
}

/** Outlets whose voltage stays in a range: what a board gives, then what sources on its ground give. */
export function outletsFor(c: Circuit, host: Instance, min_V: number, max_V: number): string[] {
  const home = groundOf(host);
  const ground = home && c.netlist.netOf(`${host.ref}.${home.label}`);
  const sources = [...c.netlist.expanded.instances.values()].filter((i) => {
    const g = groundOf(i);
    const joined = g && c.netlist.netOf(`${i.ref}.${g.label}`) === ground;
    return i.part.id.startsWith("supply/") && joined && !isPlugged(i, c.project);
  });
  return [host, ...sources].flatMap((i) =>
    i.part.pins
      .filter((p) => p.role === "supply-out" || p.role === "supply-io")
      .map((p) => `${i.ref}.${p.label}`)
      .filter((end) => {
        const { V } = c.netlist.netOf(end);
        return V !== null && V.min >= min_V - 1e-9 && V.max <= max_V + 1e-9;
      }),
  );
}

/**
 * A small regulator for 3.3 V parts that a board's own can't feed: what it gives, what it wants, what it stands for a moment with
 * room to spare, and what it may warm up to.
 */
const REGULATOR = { id: "module/ldo-3v3", out: [3.235, 3.365], in: [4.6, 12], peak_mA: 640, mean_mA: 300 } as const;

/** A fix that gives a 3.3 V part, now on the rail `net`, a regulator of its own, fed from 5 V. */
export function regulatorFix(c: Circuit, ref: string, net: string | undefined): Fix[] {
  const inst = c.netlist.instance(ref);
  const pin = inst && inlet(inst);
  const host = inst?.host ? c.netlist.instance(inst.host) : undefined;
  const ground = groundOf(host);
  if (!inst || inst.inserted || !pin || !host || !ground || !c.catalogue.get(REGULATOR.id)) return [];
  if (c.netlist.netOf(`${ref}.${pin.label}`).id !== net) return [];
  const s = inst.part.supplies[pin.supply!]!;
  const value = (x: number | string) => evaluate(x, inst.vars);
  if (value(s.V.min) > REGULATOR.out[0] || value(s.V.max) < REGULATOR.out[1]) return [];
  const peak = value(s.mA?.peak ?? 0);
  if (peak > REGULATOR.peak_mA || value(s.mA?.typ ?? peak) > REGULATOR.mean_mA) return [];
  const from = outletsFor(c, host, REGULATOR.in[0], REGULATOR.in[1])[0];
  if (!from) return [];
  const u = nextRef(c.project, REGULATOR.id);
  return [
    {
      id: "regulator",
      label: `Feed ${label(c, ref)} from a 3.3 V regulator of its own, at ${from}`,
      edits: [
        { type: "addPart", part: REGULATOR.id, ref: u, label: `3.3 V for ${inst.label}`.slice(0, 60) },
        addLink(`${u}.VIN`, from),
        addLink(`${u}.GND`, `${host.ref}.${ground.label}`),
        ...moveSupply(c, inst, `${u}.OUT`),
      ],
    },
  ];
}

/** Adapters for a supply pin that nothing feeds, with what they surely keep to. */
const ADAPTERS = [
  { id: "supply/adapter-5v-2a", pin: "5V", V: 5, V_range: [4.75, 5.25], words: "a 5 V 2 A adapter" },
  { id: "supply/adapter-9v-1a", pin: "9V", V: 9, V_range: [8.55, 9.45], words: "a 9 V 1 A adapter" },
  { id: "supply/adapter-12v-2a", pin: "12V", V: 12, V_range: [11.4, 12.6], words: "a 12 V 2 A adapter" },
] as const;

/** A fix that brings the adapter nearest to what an unfed supply pin is made for; an isolated side keeps its own ground. */
export function adapterFix(c: Circuit, inst: Instance, key: string): Fix[] {
  const s = inst.part.supplies[key]!;
  const pin = inst.part.pins.find((p) => p.role === "supply-in" && p.supply === key);
  const ground = groundOf(inst, s.domain);
  if (!pin || !ground || inst.inserted) return [];
  const value = (x: number | string) => evaluate(x, inst.vars);
  const fitting = ADAPTERS.filter(
    (a) => c.catalogue.get(a.id) && value(s.V.min) <= a.V_range[0] && value(s.V.max) >= a.V_range[1],
  ).sort((a, b) => Math.abs(a.V - value(s.V.typ)) - Math.abs(b.V - value(s.V.typ)));
  const a = fitting[0];
  if (!a) return [];
  const ref = nextRef(c.project, a.id);
  const host = inst.host ? c.netlist.instance(inst.host) : undefined;
  const home = groundOf(host);
  const joins = host && home && (s.domain ?? "gnd") === (groundOf(inst)?.domain ?? "gnd");
  return [
    {
      id: "adapter",
      label: `Feed ${inst.ref}.${pin.label} from ${a.words}`,
      edits: [
        { type: "addPart", part: a.id, ref },
        // A dead rail that it hangs on now is left alone: the adapter is for this pin.
        ...moveSupply(c, inst, `${ref}.${a.pin}`, pin),
        addLink(`${inst.ref}.${ground.label}`, `${ref}.GND`),
        ...(joins ? [addLink(`${ref}.GND`, `${host.ref}.${home.label}`)] : []),
      ],
    },
  ];
}

/** Adapters that a part may get for itself, the smallest first. */
const OWN_SUPPLIES = [
  { id: "supply/adapter-5v-2a", mA: 2000, words: "a 5 V 2 A adapter" },
  { id: "supply/adapter-5v-10a", mA: 10_000, words: "a 5 V 10 A adapter" },
];
/** So much of a limit may be used before it counts as tight. */
export const ROOMY = 0.8;

/** A supply of this kind in the project that does not feed the part yet and still has room for it. */
function roomyOne(c: Circuit, id: string, from: Net, need_mA: number): string | undefined {
  return [...c.netlist.expanded.instances.values()].find((i) => {
    const limit = c.power.limits.find((l) => l.ref === i.ref && l.kind === "source");
    const used = (limit?.flow.peak ?? 0) * 1000;
    const most = limit ? limit.limit_A * 1000 : Infinity;
    return i.part.id === id && c.netlist.netOf(`${i.ref}:main`) !== from && used + need_mA <= most * ROOMY;
  })?.ref;
}

export interface OwnSupply {
  /** The outlet, its words, and the edits that bring the part there: a new adapter where none has room. */
  end: string;
  words: string;
  edits: BasicEdit[];
}

/**
 * A 5 V adapter for a part: one that is in the project with room, else a new one. Of a part with several supplies the one
 * that draws from `net` moves.
 */
export function ownSupply(c: Circuit, ref: string, net?: string): OwnSupply | null {
  const inst = c.netlist.instance(ref);
  const drawn = (p: Pin) => p.role === "supply-in" && c.netlist.netOf(`${ref}.${p.label}`).id === net;
  const pin = inst && (inst.part.pins.find(drawn) ?? inlet(inst));
  const ground = inst?.part.pins.find((p) => p.role === "ground");
  if (!inst || !pin || !ground) return null;
  const range = inst.part.supplies[pin.supply!]!.V;
  // A part that wants a little more than a low adapter gives is a risk there, and still better off.
  if (evaluate(range.min, inst.vars) > 5 || evaluate(range.max, inst.vars) < 5.25) return null;
  const now = c.netlist.netOf(`${ref}.${pin.label}`);
  // From 3.3 V to 5 V its signals would rise with it, above what the board takes.
  const rises = Object.values(inst.part.levels).some((l) => l.supply === pin.supply) && (now.V?.max ?? 5) < 4;
  if (rises) return null;
  const need = evaluate(inst.part.supplies[pin.supply!]!.mA?.peak ?? 0, inst.vars);
  const kind = OWN_SUPPLIES.find((x) => need <= x.mA * ROOMY && c.catalogue.get(x.id));
  if (!kind) return null;
  const there = OWN_SUPPLIES.flatMap((x) => roomyOne(c, x.id, now, need) ?? [])[0];
  const s = there ?? nextRef(c.project, kind.id);
  const host = inst.host ? c.netlist.instance(inst.host) : undefined;
  const home = host?.part.pins.find((p) => p.role === "ground");
  return {
    end: `${s}.5V`,
    words: there ?? `${kind.words} of its own`,
    edits: [
      ...(there ? [] : [{ type: "addPart" as const, part: kind.id, ref: s }]),
      ...moveSupply(c, inst, `${s}.5V`, pin),
      addLink(`${ref}.${ground.label}`, `${s}.GND`),
      ...(host && home ? [addLink(`${s}.GND`, `${host.ref}.${home.label}`)] : []),
    ],
  };
}

/** `ownSupply` as a fix. */
export function ownSupplyFix(c: Circuit, ref: string, net?: string): Fix[] {
  const own = ownSupply(c, ref, net);
  return own ? [{ id: "own-supply", label: `Feed ${label(c, ref)} from ${own.words}`, edits: own.edits }] : [];
}
