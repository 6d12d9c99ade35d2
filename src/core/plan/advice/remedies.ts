import { assign, chainAfter, isPlanned, planDiff, TRIAL_MS, type AssignResult } from "../assign";
import { findPin, isPointToPoint, isSoftwareBus, type Catalogue } from "../../parts/catalogue";
import { applyEdit, nextRef, partLookup, splitEnd, type BasicEdit, type Project } from "../../project";
import { rankBoardsSlowly, type BoardTrial } from "./boards";
import { newFindings, settle } from "./settle";

/** Something that makes the plan fit, tried by the solver. */
export interface Remedy {
  id: string;
  kind: "strap" | "software" | "drop" | "unlock" | "add" | "board" | "both";
  label: string;
  /** What it costs and brings, in a sentence. */
  says: string;
  /** Parts that join the list. */
  adds: { part: string; name: string; count: number; owned: number }[];
  cost: number;
  /** Wires that are elsewhere than now. */
  moves: number;
  /** Worst findings that the fixed plan has and the present one has not. */
  stops: number;
  faults: number;
  /** The project with the remedy applied and everything planned. */
  project: Project;
}

/** A change of the project that may help; what it gives is only known when the solver has tried it. */
interface Try {
  id: string;
  kind: Remedy["kind"];
  label: string;
  says: string;
  change(p: Project): Project;
}

interface Scene {
  project: Project;
  catalogue: Catalogue;
  /** Needs of the clashing core, with what they are. */
  core: { id: string; ref: string; locked: boolean; optional: boolean; kind: string; slow: boolean; out: boolean }[];
}

/** What each extender is good for: which needs of the core it could take, how many pins it has, and what it costs. */
const EXTENDERS: {
  part: string;
  serves(n: Scene["core"][number]): boolean;
  pins: number;
  chain?: boolean;
  says: string;
  /** Our programs talk through it as it is. */
  driven?: boolean;
}[] = [
  {
    part: "module/74hc595",
    serves: (n) => n.slow && n.kind === "digital-out",
    pins: 8,
    chain: true,
    says: "three pins drive eight outputs, more in a chain; the program shifts all of them out at every change",
  },
  {
    part: "module/74hc165",
    serves: (n) => n.slow && n.kind === "digital-in",
    pins: 8,
    chain: true,
    says: "three pins read eight inputs, more in a chain; each input wants a pull-up of its own",
  },
  {
    part: "module/mcp23017",
    serves: (n) => n.slow && n.kind.startsWith("digital"),
    pins: 16,
    says: "two bus pins give sixteen inputs or outputs with pull-ups; a change takes about a quarter of a millisecond",
  },
  {
    part: "module/pcf8574",
    // Its lines hardly give any current when high: good for contacts, not for lights.
    serves: (n) => n.slow && n.kind === "digital-in",
    pins: 8,
    says: "two bus pins give eight inputs with weak pull-ups",
  },
  {
    part: "module/hx711",
    serves: (n) => n.kind === "bridge",
    pins: 4,
    says: "two pins read a load cell, ten times a second",
    driven: true,
  },
  {
    part: "module/cd4067",
    serves: (n) => n.slow && n.kind === "adc",
    pins: 16,
    says: "one analogue pin and four selects read sixteen sensors, one after the other",
  },
  {
    part: "module/mcp3008",
    serves: (n) => n.slow && n.kind === "adc",
    pins: 8,
    says: "the SPI pins give eight analogue inputs of 10 bits",
  },
  {
    part: "module/ads1115",
    serves: (n) => n.slow && n.kind === "adc",
    pins: 4,
    says: "two bus pins give four analogue inputs of 16 bits, read up to 860 times a second",
  },
  {
    part: "module/pca9685",
    serves: (n) => n.kind === "pwm",
    pins: 16,
    says: "two bus pins give sixteen pulse outputs, all at one rate",
  },
  {
    part: "module/tca9548a",
    serves: (n) => n.kind === "i2c",
    pins: 8,
    says: "eight buses behind one: parts with the same address get one each",
  },
];

/** Definitions that remedies may put into a project, for callers that load parts on demand. */
export const REMEDY_PARTS = EXTENDERS.map((e) => e.part);

function sceneOf(project: Project, catalogue: Catalogue, a: AssignResult): Scene {
  const partOf = partLookup(project, catalogue);
  return {
    project,
    catalogue,
    core: a.core.map((n) => {
      const { ref, pin } = splitEnd(n.need);
      const def = findPin(partOf(ref)!, pin);
      return {
        id: n.need,
        ref,
        locked: n.locked !== undefined,
        optional: def?.need?.optional ?? false,
        kind: def?.need?.kind ?? "",
        slow: def?.need?.slow ?? false,
        out: def?.io === "in",
      };
    }),
  };
}

const edited = (s: Scene, edits: BasicEdit[]) => (p: Project) =>
  edits.reduce((q, e) => applyEdit(q, e, s.catalogue), p);
const nameOf = (p: Project, ref: string) => p.parts.find((x) => x.ref === ref)?.label ?? ref;

function straps(s: Scene): Try[] {
  const partOf = partLookup(s.project, s.catalogue);
  return [...new Set(s.core.filter((n) => n.kind === "i2c").map((n) => n.ref))].flatMap((ref) => {
    const option = partOf(ref)?.options.find((o) => o.key === "address");
    const now = s.project.parts.find((p) => p.ref === ref)?.options?.address;
    if (option?.kind !== "choice") return [];
    return option.choices
      .filter((x) => x.value !== (now ?? option.default))
      .map((x): Try => ({
        id: `strap-${ref}-${x.value}`,
        kind: "strap",
        label: `Set ${nameOf(s.project, ref)} to address ${x.value}`,
        says: x.label.replace(/^0x..: /i, ""),
        change: edited(s, [{ type: "setOption", ref, key: "address", value: x.value }]),
      }));
  });
}

/** The program does one, two, … of the clashing ports. */
function software(s: Scene): Try[] {
  const partOf = partLookup(s.project, s.catalogue);
  // Where a port takes one device, everybody who wants one is concerned, not only the two that clash.
  const inCore = (ref: string, kind: string) =>
    s.core.some((n) => n.kind === kind && (n.ref === ref || isPointToPoint(kind)));
  const groups = s.project.parts.flatMap(({ ref }) =>
    (partOf(ref)?.groups ?? [])
      .filter((g) => isSoftwareBus(g.kind) && inCore(ref, g.kind))
      .map((g) => ({
        ref,
        group: g.id,
        kind: g.kind,
        fast: Number(s.project.parts.find((p) => p.ref === ref)?.options?.baud ?? 9600),
      })),
  );
  // The slowest lines are the ones that a program keeps up with.
  const order = [...groups].sort((a, b) => a.fast - b.fast);
  return order.map((_, k): Try => {
    const mine = order.slice(0, k + 1);
    const who = mine.map((g) => nameOf(s.project, g.ref)).join(" and ");
    return {
      id: `software-${mine.map((g) => g.ref).join("-")}`,
      kind: "software",
      label: `Do the port of ${who} in software`,
      says: mine.every((g) => g.kind === "spi")
        ? "no part to buy; the program times the lines itself on ordinary pins, at a few hundred kHz, as our programs do"
        : "no part to buy; the program times the lines itself on ordinary pins: good to about 38,400 baud or 100 kHz, it stops the program while it listens, and our programs do not speak it yet: the pins are in the pins file",
      change: edited(
        s,
        mine.map((g): BasicEdit => ({ type: "setSoftware", ref: g.ref, group: g.group, software: true })),
      ),
    };
  });
}

function drops(s: Scene): Try[] {
  const partOf = partLookup(s.project, s.catalogue);
  const optional = s.project.parts.flatMap((p) =>
    (partOf(p.ref)?.pins ?? [])
      .filter((x) => x.need?.optional)
      .filter(
        (x) =>
          p.wanted?.includes(x.label) || s.project.links.some((l) => [l.from, l.to].includes(`${p.ref}.${x.label}`)),
      )
      .map((x) => ({ ref: p.ref, pin: x.label, says: x.says })),
  );
  return optional.map((o): Try => ({
    id: `drop-${o.ref}-${o.pin}`,
    kind: "drop",
    label: `Leave ${o.pin} of ${nameOf(s.project, o.ref)} unconnected`,
    says: o.says ? `the part works without it (${o.says})` : "the part works without it",
    change: edited(s, [{ type: "setWanted", ref: o.ref, pin: o.pin, wanted: false }]),
  }));
}

function unlocks(s: Scene): Try[] {
  return s.core
    .filter((n) => n.locked)
    .flatMap((n): Try[] => {
      const link = s.project.links.find((l) => l.locked && [l.from, l.to].includes(n.id));
      if (!link) return [];
      return [
        {
          id: `unlock-${n.id}`,
          kind: "unlock",
          label: `Unlock ${n.id}`,
          says: `the planner may then take it off ${link.from === n.id ? link.to : link.from}`,
          change: edited(s, [{ type: "lock", from: link.from, to: link.to, locked: false }]),
        },
      ];
    });
}

/** A number of extenders of one kind, in a chain where they can be. */
function extend(s: Scene, part: string, count: number, chain: boolean) {
  return (p: Project): Project => {
    let now = p;
    let last: string | null = null;
    for (let i = 0; i < count; i++) {
      const ref = nextRef(now, part);
      now = applyEdit(now, { type: "addPart", part, ref }, s.catalogue);
      if (chain && last) now = chainAfter(now, s.catalogue, ref, last);
      last = ref;
    }
    return now;
  };
}

function extenderTries(s: Scene): Try[] {
  return EXTENDERS.flatMap((e): Try[] => {
    const serves = s.core.filter((n) => e.serves(n)).length;
    const def = s.catalogue.get(e.part);
    if (!serves || !def) return [];
    const most = e.chain ? Math.min(8, Math.ceil(serves / e.pins) + 1) : 1;
    return Array.from({ length: most }, (_, i) => i + 1).map((count): Try => ({
      id: `add-${e.part.split("/")[1]}-${count}`,
      kind: "add",
      label: count === 1 ? `Add ${def.name}` : `Add ${count} × ${def.name}, chained`,
      says: e.driven ? e.says : `${e.says}; our programs do not talk through it yet, its pins are in the plan`,
      change: extend(s, e.part, count, e.chain ?? false),
    }));
  });
}

function judge(s: Scene, t: Try): Remedy | null {
  const tried = t.change(s.project);
  const a = assign(tried, s.catalogue, TRIAL_MS);
  if (!isPlanned(a)) return null;
  const had = new Set(s.project.parts.map((p) => p.ref));
  const counts = new Map<string, number>();
  for (const p of a.project.parts) if (!had.has(p.ref)) counts.set(p.part, (counts.get(p.part) ?? 0) + 1);
  const settled = settle(a.project, s.catalogue);
  const news = newFindings(s.project, settled, s.catalogue);
  return {
    id: t.id,
    kind: t.kind,
    label: t.label,
    says: t.says,
    adds: [...counts].map(([part, count]) => ({
      part,
      name: s.catalogue.get(part)?.name ?? part,
      count,
      owned: s.project.drawer.parts[part] ?? 0,
    })),
    cost: a.cost,
    moves: planDiff(s.project, settled, s.catalogue).filter((m) => m.from !== null).length,
    stops: news.filter((f) => f.severity === "stop").length,
    faults: news.filter((f) => f.severity === "fault").length,
    project: settled,
  };
}

function boardTries(s: Scene, trials: readonly BoardTrial[]): Remedy[] {
  return trials
    .filter((b) => b.fits && !b.current && b.overdriven + b.short + b.unfed.length === 0 && !b.lacks.length)
    .slice(0, 3)
    .map((b): Remedy => ({
      id: `board-${b.board}`,
      kind: "board",
      label: `Use another board: ${b.name}`,
      says: `${b.spare === 1 ? "1 pin stays" : `${b.spare} pins stay`} free; ${b.facts}`,
      adds: b.owned ? [] : [{ part: b.board, name: b.name, count: 1, owned: 0 }],
      cost: b.cost,
      moves: s.project.links.length,
      stops: 0,
      faults: 0,
      project: b.project!,
    }));
}

/** Fewer troubles, then nothing to buy and no program to write by hand, then fewer wires to move, then the cheaper plan. */
const rank = (r: Remedy) =>
  r.stops * 1e6 +
  r.faults * 1e5 +
  r.adds.reduce((n, x) => n + Math.max(0, x.count - x.owned), 0) * 1e4 +
  (r.kind === "board" ? 2e4 : r.kind === "software" ? 1.5e4 : 0) +
  r.moves * 100 +
  r.cost;

/** Remedies in the order in which they are offered. */
export const best = (list: readonly Remedy[]) =>
  [...list].sort((a, b) => rank(a) - rank(b) || a.id.localeCompare(b.id));

const MOST_PAIRS = 40;

/**
 * Everything that would make a plan fit that does not, each really tried by the solver: another strap, a port in software,
 * a pin left free, a lock taken off, an extender, another board; two together when one is not enough. Pauses before each
 * try, with what has helped so far. Best first; of chains only the shortest that fits.
 */
export function* remediesSlowly(
  project: Project,
  catalogue: Catalogue,
  clash: AssignResult,
): Generator<readonly Remedy[], Remedy[], boolean | undefined> {
  if (clash.status !== "infeasible") return [];
  const s = sceneOf(project, catalogue, clash);
  const tries = [...straps(s), ...software(s), ...drops(s), ...unlocks(s), ...extenderTries(s)];
  const out: Remedy[] = [];
  const done = new Set<string>();
  /** A longer chain, or one port more in software, is no remedy of its own. */
  const family = (t: Try) => (t.kind === "software" ? "software" : t.kind === "add" ? t.id.replace(/-\d+$/, "") : t.id);
  for (const t of tries) {
    if (done.has(family(t))) continue;
    if (yield out) return best(out);
    const r = judge(s, t);
    if (!r) continue;
    done.add(family(t));
    out.push(r);
  }
  const boards = rankBoardsSlowly(project, catalogue);
  let stop = false;
  for (;;) {
    const r = boards.next(stop);
    if (r.done) {
      out.push(...boardTries(s, r.value));
      break;
    }
    stop = (yield out) === true;
  }
  if (stop) return best(out);
  if (!out.some((r) => r.kind !== "board")) {
    let pairs = 0;
    pairing: for (const [i, a] of tries.entries())
      for (const b of tries.slice(i + 1)) {
        if (family(a) === family(b)) continue;
        if (pairs++ >= MOST_PAIRS || out.filter((r) => r.kind === "both").length >= 3) break pairing;
        if (yield out) return best(out);
        const r = judge(s, {
          id: `${a.id}+${b.id}`,
          kind: "both",
          label: `${a.label}, and ${b.label.charAt(0).toLowerCase()}${b.label.slice(1)}`,
          says: `${a.says}; ${b.says}`,
          change: (p) => b.change(a.change(p)),
        });
        if (r) out.push(r);
      }
  }
  return best(out);
}

/** `remediesSlowly` without pauses. */
export function remedies(project: Project, catalogue: Catalogue, clash: AssignResult): Remedy[] {
  const run = remediesSlowly(project, catalogue, clash);
  for (;;) {
    const r = run.next();
    if (r.done) return r.value;
  }
}
