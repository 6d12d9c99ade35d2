import type { Circuit } from "../circuit";
import { planHookups, waysToServe, type PlannedLink } from "../assign";
import { evaluate, formatSI } from "../quantity";
import type { Need } from "../catalogue";
import { logicSupplyPin, type Instance, type Net } from "../netlist";
import { nextRef, splitEnd, type BasicEdit, type Project } from "../project";
import type { Fix } from "./types";

export const round = (v: number, digits = 3) => Number(v.toFixed(digits));
export const mA = (a: number) => formatSI(a, "A");
export const label = (c: Circuit, ref: string) => {
  const l = c.netlist.instance(ref)?.label;
  return l && l !== ref ? `${l} (${ref})` : ref;
};

const linkedMemo = new WeakMap<Project, Set<string>>();
/** References that at least one wire of the project touches. */
export function linkedRefs(project: Project): Set<string> {
  const known = linkedMemo.get(project);
  if (known) return known;
  const out = new Set(project.links.flatMap((l) => [splitEnd(l.from).ref, splitEnd(l.to).ref]));
  linkedMemo.set(project, out);
  return out;
}

/** The project's part behind an instance: itself, or the one that an inserted companion belongs to. */
export function owner(c: Circuit, ref: string): string {
  const inst = c.netlist.instance(ref);
  return inst?.inserted ? inst.inserted.by : ref;
}

const hookups = new WeakMap<Project, PlannedLink[]>();

/** Links that the planner would add for a part, as edits. */
export function wireUp(c: Circuit, ref: string): BasicEdit[] {
  let planned = hookups.get(c.project);
  if (!planned) hookups.set(c.project, (planned = planHookups(c.project, c.catalogue).planned));
  return planned
    .filter((l) => [l.from, l.to].some((e) => splitEnd(e).ref === ref))
    .map((l) => ({ type: "addLink", link: { from: l.from, to: l.to } }));
}

/** The best free pin of a host for a need: fewest hazards first, then printed order. */
export function freePin(c: Circuit, host: string, need: Need): string | null {
  const used = new Set(c.project.links.flatMap((l) => [l.from, l.to]));
  const pins = c.netlist.instance(host)!.part.pins.filter((p) => p.offers?.length && !used.has(`${host}.${p.label}`));
  const fitting = pins.filter((p) => waysToServe(p, need).some((w) => w.ok));
  return [...fitting].sort((a, b) => (a.hazards?.length ?? 0) - (b.hazards?.length ?? 0))[0]?.label ?? null;
}

/** A line that both ends drive in turn: an I2C data line, a one-wire line, a sensor that is asked and answers on one pin. */
export const isTwoWay = (need: Need) =>
  need.kind === "digital-io" || need.role === "onewire" || (need.kind === "i2c" && need.role === "sda");

/** The project's link between a part's pin (or its series parts) and a host. */
export function linkOf(c: Circuit, ref: string, pin: string, host: string) {
  const end = `${ref}.${pin}`;
  return c.project.links.find(
    (l) => (l.from === end && splitEnd(l.to).ref === host) || (l.to === end && splitEnd(l.from).ref === host),
  );
}

/** A fix that moves a need to a free pin that can serve it. */
export function moveFix(c: Circuit, ref: string, pin: string, host: string, need: Need): Fix[] {
  const link = linkOf(c, ref, pin, host);
  const to = freePin(c, host, need);
  if (!link || !to) return [];
  const end = `${ref}.${pin}`;
  const from = link.from === end ? link.to : link.from;
  return [
    { id: "move-pin", label: `Move ${end} to ${to}`, edits: [{ type: "moveLink", end, from, to: `${host}.${to}` }] },
  ];
}

const supplyLinks = (c: Circuit, inst: Instance) => {
  const ends = inst.part.pins.filter((p) => p.role === "supply-in").map((p) => `${inst.ref}.${p.label}`);
  return c.project.links.filter((l) => ends.includes(l.from) || ends.includes(l.to));
};

/** Edits that move a part's supply to another outlet. */
export function moveSupply(c: Circuit, inst: Instance, to: string): BasicEdit[] {
  const pin = inst.part.pins.find((p) => p.role === "supply-in");
  if (!pin) return [];
  return [
    ...supplyLinks(c, inst).map((l): BasicEdit => ({ type: "removeLink", from: l.from, to: l.to })),
    { type: "addLink", link: { from: `${inst.ref}.${pin.label}`, to } },
  ];
}

/** A fix that feeds a part from its host's logic supply, when its range allows. */
export function logicSupplyFix(c: Circuit, ref: string): Fix[] {
  const inst = c.netlist.instance(owner(c, ref));
  const host = inst?.host ? c.netlist.instance(inst.host) : undefined;
  const to = host && logicSupplyPin(host.part);
  const pin = inst?.part.pins.find((p) => p.role === "supply-in");
  if (!inst || !host || !to || !pin) return [];
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

/** A fix that gives a part its own 5 V adapter: one that is in the project with room, else a new one. */
export function ownSupplyFix(c: Circuit, ref: string): Fix[] {
  const inst = c.netlist.instance(ref);
  const pin = inst?.part.pins.find((p) => p.role === "supply-in");
  const ground = inst?.part.pins.find((p) => p.role === "ground");
  if (!inst || !pin || !ground) return [];
  const range = inst.part.supplies[pin.supply!]!.V;
  if (evaluate(range.min, inst.vars) > 4.75 || evaluate(range.max, inst.vars) < 5.25) return [];
  const need = evaluate(inst.part.supplies[pin.supply!]!.mA?.peak ?? 0, inst.vars);
  const kind = OWN_SUPPLIES.find((x) => need <= x.mA * ROOMY && c.catalogue.get(x.id));
  if (!kind) return [];
  const now = c.netlist.netOf(`${ref}.${pin.label}`);
  const there = OWN_SUPPLIES.flatMap((x) => roomyOne(c, x.id, now, need) ?? [])[0];
  const s = there ?? nextRef(c.project, kind.id);
  const host = inst.host ? c.netlist.instance(inst.host) : undefined;
  const hostGround = host?.part.pins.find((p) => p.role === "ground");
  const edits: BasicEdit[] = [];
  if (!there) edits.push({ type: "addPart", part: kind.id, ref: s });
  edits.push(...moveSupply(c, inst, `${s}.5V`));
  edits.push({ type: "addLink", link: { from: `${ref}.${ground.label}`, to: `${s}.GND` } });
  if (host && hostGround)
    edits.push({ type: "addLink", link: { from: `${s}.GND`, to: `${host.ref}.${hostGround.label}` } });
  return [{ id: "own-supply", label: `Feed ${label(c, ref)} from ${there ?? `${kind.words} of its own`}`, edits }];
}
