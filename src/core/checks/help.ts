import type { Circuit } from "../circuit";
import { planHookups, waysToServe, type PlannedLink } from "../plan/assign";
import { formatSI } from "../quantity";
import type { Need } from "../parts/catalogue";
import { splitEnd, type BasicEdit, type Project } from "../project";
import type { Fix } from "./types";

export const round = (v: number, digits = 3) => Number(v.toFixed(digits));
export const mA = (a: number) => formatSI(a, "A");
export const label = (c: Circuit, ref: string) => {
  const l = c.netlist.instance(ref)?.label;
  return l && l !== ref ? `${l} (${ref})` : ref;
};

/** Whether a part is the project's own: made here, or come with its file. */
export const isOwn = (c: Circuit, id: string): boolean => c.project.customParts.some((p) => p.id === id);

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

/** The best free pin of a host for a need, on none of the buses that are taken: fewest hazards first, then printed order. */
export function freePin(
  c: Circuit,
  host: string,
  need: Need,
  taken: ReadonlySet<string> = new Set(),
  except: ReadonlySet<string> = new Set(),
): string | null {
  const used = new Set(c.project.links.flatMap((l) => [l.from, l.to]));
  const pins = c.netlist
    .instance(host)!
    .part.pins.filter((p) => p.offers?.length && !used.has(`${host}.${p.label}`) && !except.has(p.label));
  const fitting = pins.filter((p) => waysToServe(p, need).some((w) => w.ok && !taken.has(w.bus ?? "")));
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
export function moveFix(
  c: Circuit,
  ref: string,
  pin: string,
  host: string,
  need: Need,
  taken?: ReadonlySet<string>,
): Fix[] {
  const link = linkOf(c, ref, pin, host);
  const to = freePin(c, host, need, taken);
  if (!link || !to) return [];
  const end = `${ref}.${pin}`;
  const from = link.from === end ? link.to : link.from;
  const hazards = (label: string) =>
    c.netlist.instance(host)!.part.pins.find((p) => p.label === label)?.hazards?.length ?? 0;
  // From one awkward pin to the next would never end.
  if (hazards(to) > 0 && hazards(to) >= hazards(splitEnd(from).pin)) return [];
  return [
    { id: "move-pin", label: `Move ${end} to ${to}`, edits: [{ type: "moveLink", end, from, to: `${host}.${to}` }] },
  ];
}

/** The other end of a link at an endpoint; null when the link does not touch it. */
export const endOfLink = (l: { from: string; to: string }, end: string): string | null =>
  l.from === end ? l.to : l.to === end ? l.from : null;
