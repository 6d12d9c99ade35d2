import { circuitOf, type Circuit } from "../circuit";
import { findPin, type Catalogue, type Offer, type Pin } from "../catalogue";
import { splitEnd, type Project } from "../project";
import { assign } from "./assign";
import { waysToServe } from "./capability";
import { openPins } from "./hookups";
import { effectiveNeed, makeProblem } from "./problem";
import { needWords, whyChosen } from "./words";

/** chosen: wired here · locked: wired here and held · fits: free and able · caution: able, with a hazard · taken: able, in use · cannot. */
export type CellState = "chosen" | "locked" | "fits" | "caution" | "taken" | "cannot";

export interface LatticeCell {
  state: CellState;
  why: string;
}
export interface LatticeColumn {
  pin: string;
  header: string;
  side: string;
  index: number;
  can: string[];
  hazards: string[];
  usedBy: string[];
  signal: boolean;
}
export interface LatticeRow {
  id: string;
  ref: string;
  part: string;
  pin: string;
  wants: string;
  at: string | null;
  locked: boolean;
  /** The link of the project that holds this need, when there is one. */
  link: { from: string; to: string } | null;
  cells: LatticeCell[];
}
export interface LatticeView {
  host: string;
  hostName: string;
  headers: { id: string; side: string; says: string }[];
  columns: LatticeColumn[];
  rows: LatticeRow[];
  spare: { can: string; pins: string[] }[];
}

const CAN: Record<Offer["kind"], (o: never) => string> = {
  digital: () => "digital",
  pwm: () => "PWM",
  adc: () => "analogue in",
  dac: () => "analogue out",
  interrupt: () => "interrupt",
  i2c: (o: { bus: string; role: string }) => `${o.bus} ${o.role.toUpperCase()}`,
  spi: (o: { bus: string; role: string }) => `${o.bus} ${o.role.toUpperCase()}`,
  uart: (o: { bus: string; role: string }) => `${o.bus} ${o.role.toUpperCase()}`,
  touch: () => "touch",
  program: () => "programming",
};
const words = (o: Offer) => CAN[o.kind](o as never);

const hazardous = new Set(["console", "strapping", "bootlog", "onboard", "programming"]);

function cell(
  pin: Pin,
  at: boolean,
  locked: boolean,
  need: Parameters<typeof waysToServe>[1],
  usedBy: string[],
  standing: string,
): LatticeCell {
  const ways = waysToServe(pin, need);
  const ok = ways.find((w) => w.ok);
  const bad = ways.find((w) => !w.ok);
  const hazard = pin.hazards?.find((h) => hazardous.has(h.kind));
  const caution = hazard ? `; mind: ${hazard.says}` : "";
  if (at && ok && !locked && standing) return { state: "chosen", why: standing };
  if (at)
    return {
      state: locked ? "locked" : "chosen",
      why: `wired here${locked ? " and locked" : ""}${bad && !bad.ok ? `, but ${bad.why}` : caution}`,
    };
  if (!ok) return { state: "cannot", why: bad && !bad.ok ? bad.why : `${pin.label} can't serve` };
  if (usedBy.length)
    return { state: "taken", why: `${pin.label} could serve, but ${usedBy.join(" and ")} is there${caution}` };
  const by = ok.ok && ok.bus ? ` by ${ok.bus}` : "";
  return hazard
    ? { state: "caution", why: `${pin.label} would fit${by}${caution}` }
    : { state: "fits", why: `${pin.label} would fit${by}` };
}

/** The lattice of a host: every need against every pin in header order, judged and explained. */
export function latticeView(c: Circuit, host: string): LatticeView {
  const { netlist, project } = c;
  const inst = netlist.instance(host)!;
  const board = inst.part.board!;
  const pins = board.headers.flatMap((h) =>
    inst.part.pins.filter((p) => p.at?.header === h.id).sort((a, b) => a.at!.index - b.at!.index),
  );
  const users = new Map<string, string[]>();
  for (const b of netlist.bindings)
    if (b.host === host) users.set(b.hostPin, [...(users.get(b.hostPin) ?? []), `${b.ref}.${b.pin}`]);
  const side = new Map(board.headers.map((h) => [h.id, h.side]));
  const columns = pins.map((p): LatticeColumn => ({
    pin: p.label,
    header: p.at!.header,
    side: side.get(p.at!.header)!,
    index: p.at!.index,
    can: p.offers?.map(words) ?? [],
    hazards: p.hazards?.map((h) => h.says) ?? [],
    usedBy: users.get(p.label) ?? [],
    signal: Boolean(p.offers?.length),
  }));
  const rows: LatticeRow[] = [];
  const problem = makeProblem(project, netlist, host);
  /** Why a need stands on its pin, in the planner's own words. */
  const standing = (id: string): string => {
    const n = problem.needs.find((x) => x.id === id);
    const choice = n?.choices.findIndex((x) => problem.pins[x.pin]!.label === n.present) ?? -1;
    if (!n || choice < 0) return "";
    const sharing = problem.needs.filter((m) => m !== n && n.share && m.share === n.share && m.present === n.present);
    return whyChosen(problem, n, choice, [...new Set(sharing.map((m) => m.ref))], true);
  };
  for (const i of netlist.expanded.instances.values()) {
    if (i.host !== host || i.inserted || i.part.board) continue;
    for (const p of i.part.pins) {
      if (!p.need) continue;
      const id = `${i.ref}.${p.label}`;
      const bound = netlist.bindings.find((b) => b.ref === i.ref && b.pin === p.label && b.host === host);
      const link =
        project.links.find(
          (l) => [l.from, l.to].includes(id) && [l.from, l.to].some((e) => splitEnd(e).ref === host),
        ) ?? null;
      const need = effectiveNeed(netlist, i.ref, p);
      const why = bound ? standing(id) : "";
      rows.push({
        id,
        ref: i.ref,
        part: i.label,
        pin: p.label,
        wants: needWords({ need }),
        at: bound?.hostPin ?? null,
        locked: link?.locked ?? false,
        link: link && { from: link.from, to: link.to },
        cells: pins.map((q) =>
          cell(
            q,
            bound?.hostPin === q.label,
            link?.locked ?? false,
            need,
            (users.get(q.label) ?? []).filter((u) => u !== id),
            why,
          ),
        ),
      });
    }
  }
  const spare = new Map<string, string[]>();
  for (const p of pins) {
    if (!p.offers?.length || users.has(p.label) || p.hazards?.some((h) => h.kind === "reserved" || h.kind === "reset"))
      continue;
    for (const k of new Set(p.offers.map((o) => o.kind))) spare.set(k, [...(spare.get(k) ?? []), p.label]);
  }
  const order = ["digital", "pwm", "adc", "interrupt", "i2c", "spi", "uart", "dac", "touch"];
  return {
    host,
    hostName: inst.part.name,
    headers: board.headers.map(({ id, side, says }) => ({ id, side, says })),
    columns,
    rows,
    spare: order.flatMap((k) => (spare.has(k) ? [{ can: k, pins: spare.get(k)! }] : [])),
  };
}

export type MoveResult =
  | { ok: true; project: Project; moved: { need: string; from: string | null; to: string }[] }
  | { ok: false; why: string };

/**
 * Moves a need to a pin and whatever must move with it: the other lines of its bus, parts that share them, and the need
 * that was on that pin. Everything else stays. The rest is solved exactly, so the move is the smallest that works.
 */
export function moveNeed(project: Project, catalogue: Catalogue, needId: string, pin: string): MoveResult {
  const c = circuitOf(project, catalogue);
  const { ref, pin: label } = splitEnd(needId);
  const inst = c.netlist.instance(ref);
  const host = inst?.host;
  const def = inst && findPin(inst.part, label);
  if (!inst || !host || !def?.need) return { ok: false, why: `${needId} is not a need of this project` };
  const at = (need: string) => c.netlist.bindings.find((b) => `${b.ref}.${b.pin}` === need);
  const isHost = (end: string) => splitEnd(end).ref === host;
  const partOfBus = new Set(["i2c", "spi", "uart"]);
  const free = new Set<string>([needId]);
  if (partOfBus.has(def.need.kind))
    for (const b of c.netlist.bindings) if (b.need.kind === def.need.kind) free.add(`${b.ref}.${b.pin}`);
  for (const b of c.netlist.bindings) if (b.host === host && b.hostPin === pin) free.add(`${b.ref}.${b.pin}`);
  const needOf = (l: { from: string; to: string }) => (isHost(l.from) ? l.to : isHost(l.to) ? l.from : null);
  const rest = project.links.filter((l) => needOf(l) !== needId);
  const trial: Project = {
    ...project,
    links: [
      ...rest.map((l) => {
        const need = needOf(l);
        const bound = need && at(need);
        return bound && !free.has(need) ? { ...l, locked: true } : l;
      }),
      { from: needId, to: `${host}.${pin}`, locked: true },
    ],
  };
  const a = assign(trial, catalogue);
  if (a.status === "infeasible") return { ok: false, why: a.clash ?? "that does not fit" };
  const wasLocked = new Map(project.links.map((l) => [`${l.from}|${l.to}`, l.locked]));
  const keep = project.links.find((l) => needOf(l) === needId)?.locked;
  const links = a.project.links.map((l) => {
    const locked = needOf(l) === needId ? keep : wasLocked.get(`${l.from}|${l.to}`);
    return { from: l.from, to: l.to, ...(locked && { locked: true }) };
  });
  const next = { ...a.project, links };
  const after = circuitOf(next, catalogue).netlist.bindings;
  const moved = after.flatMap((b) => {
    const before = at(`${b.ref}.${b.pin}`)?.hostPin ?? null;
    return before !== b.hostPin ? [{ need: `${b.ref}.${b.pin}`, from: before, to: b.hostPin }] : [];
  });
  return { ok: true, project: next, moved };
}

/** How many signal needs of the project have no pin yet. */
export const openNeeds = (c: Circuit) =>
  [...c.netlist.expanded.instances.values()]
    .filter((i) => !i.inserted && !i.part.board && i.host)
    .reduce((s, i) => s + openPins(c.project, c.netlist, i).filter((p) => p.need).length, 0);
