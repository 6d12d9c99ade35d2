import { circuitOf } from "../../circuit";
import { findPin, isBusKind, type Catalogue } from "../../parts/catalogue";
import { splitEnd, type Project } from "../../project";
import { assign, isPlanned } from "./assign";

/** A need whose pin is another than before; null where it has or had none. */
export interface Moved {
  need: string;
  from: string | null;
  to: string | null;
}

export type MoveResult = { ok: true; project: Project; moved: Moved[] } | { ok: false; why: string };

/** Which needs stand elsewhere in `after`: moved, newly wired, or no longer wired. Endpoints, in the order of the parts. */
export function planDiff(before: Project, after: Project, catalogue: Catalogue): Moved[] {
  const at = (p: Project) =>
    new Map(circuitOf(p, catalogue).netlist.bindings.map((b) => [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`]));
  const [old, now] = [at(before), at(after)];
  return [...new Set([...now.keys(), ...old.keys()])].flatMap((need) => {
    const [from, to] = [old.get(need) ?? null, now.get(need) ?? null];
    return from === to ? [] : [{ need, from, to }];
  });
}

/**
 * Moves a need to a pin (an endpoint, or a label of its host) and whatever must move with it: the other lines of its bus,
 * parts that share them, and the need that was on that pin. Everything else stays. The rest is solved exactly, so the move
 * is the smallest that works.
 */
export function moveNeed(project: Project, catalogue: Catalogue, needId: string, pin: string): MoveResult {
  const c = circuitOf(project, catalogue);
  const { ref, pin: label } = splitEnd(needId);
  const inst = c.netlist.instance(ref);
  const host = inst?.host;
  const def = inst && findPin(inst.part, label);
  if (!inst || !host || !def?.need) return { ok: false, why: `${needId} is not a need of this project` };
  const end = c.netlist.instance(splitEnd(pin).ref) ? pin : `${host}.${pin}`;
  const at = (need: string) => c.netlist.bindings.find((b) => `${b.ref}.${b.pin}` === need);
  const offers = (e: string) => {
    const i = c.netlist.instance(splitEnd(e).ref);
    return i !== undefined && (i.ref === host || Boolean(findPin(i.part, splitEnd(e).pin)?.offers?.length));
  };
  const free = new Set<string>([needId]);
  if (isBusKind(def.need.kind))
    for (const b of c.netlist.bindings) if (b.need.kind === def.need.kind) free.add(`${b.ref}.${b.pin}`);
  for (const b of c.netlist.bindings) if (`${b.host}.${b.hostPin}` === end) free.add(`${b.ref}.${b.pin}`);
  const needOf = (l: { from: string; to: string }) => (offers(l.from) ? l.to : offers(l.to) ? l.from : null);
  const trial: Project = {
    ...project,
    links: [
      ...project.links
        .filter((l) => needOf(l) !== needId)
        .map((l) => {
          const need = needOf(l);
          const bound = need && at(need);
          return bound && !free.has(need) ? { ...l, locked: true } : l;
        }),
      { ...project.links.find((l) => needOf(l) === needId), from: needId, to: end, locked: true },
    ],
  };
  const a = assign(trial, catalogue);
  if (!isPlanned(a)) return { ok: false, why: a.clash ?? "that does not fit" };
  const wasLocked = new Map(project.links.map((l) => [`${l.from}|${l.to}`, l.locked]));
  const keep = project.links.find((l) => needOf(l) === needId)?.locked;
  const links = a.project.links.map((l) => {
    const locked = needOf(l) === needId ? keep : wasLocked.get(`${l.from}|${l.to}`);
    const { locked: _, ...rest } = l;
    return { ...rest, ...(locked && { locked: true }) };
  });
  const next = { ...a.project, links };
  return { ok: true, project: next, moved: planDiff(project, next, catalogue) };
}
