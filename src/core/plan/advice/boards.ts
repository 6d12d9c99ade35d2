import { assign, isPlanned, TRIAL_MS, leftByKind, type LeftOver } from "../assign";
import { partKind, type Catalogue, type Part } from "../../parts/catalogue";
import { findings } from "../../checks";
import { circuitOf, type Circuit } from "../../circuit";
import { applyEdit, defaultHost, partLookup, type Project } from "../../project";
import type { Netlist } from "../../circuit/netlist";

/** One board tried for a parts list. */
export interface BoardTrial {
  board: string;
  name: string;
  fits: boolean;
  cost: number;
  /** Pins that stay free, and what for. */
  spare: number;
  left: Pick<LeftOver, "can" | "name" | "pins">[];
  /** Signals that would fall short or overdrive, counted from the level verdicts. */
  overdriven: number;
  short: number;
  /** Level shifters or dividers that this would take. */
  shifters: number;
  /** Parts that nothing on this board feeds at their voltage. */
  unfed: string[];
  /** What the supply says: the worst power finding in words, or that it holds. */
  supply: {
    severity: "stop" | "fault" | "risk" | "fine";
    says: string;
    /** The limit that is nearest to being reached: peak and limit in amperes, and which it is. */
    tightest: { says: string; peak_A: number; limit_A: number } | null;
  };
  /** What the project asks for that this board has not: USB role, radio, memory. */
  lacks: string[];
  stops: number;
  faults: number;
  why: string;
  /** The plan's cautions: parts on console, strapping or on-board pins. */
  cautions: number;
  current: boolean;
  /** In the person's drawer. */
  owned: boolean;
  facts: string;
  V: number;
  usb: "native" | "bridge" | "none";
  radio: string[];
  flash_kB: number;
  ram_kB: number;
  mm: [number, number];
  solder: boolean;
  breadboard: boolean;
  price: "low" | "medium" | "high";
  targets: string[];
  certainty: string;
  /** The project on this board, planned; absent when it does not fit. */
  project?: Project;
}

/** Parts whose supply pin found no rail: the board brings none out at their voltage, and no supply in the list does. */
function unfedParts(netlist: Netlist): string[] {
  return [...netlist.expanded.instances.values()].flatMap((i) => {
    if (i.part.board || i.inserted) return [];
    const dead = i.part.pins.some(
      (p) =>
        p.role === "supply-in" && !p.optional && i.part.supplies[p.supply!] && !netlist.netOf(`${i.ref}:${p.supply}`).V,
    );
    return dead ? [i.label] : [];
  });
}

const many = (n: number, one: string, more: string) => `${n} ${n === 1 ? one : more}`;

/** Bytes that lights and displays hold in memory: three a pixel, one for each letter of a small glass. */
function memoryFor(netlist: Netlist): number {
  let bytes = 0;
  for (const i of netlist.expanded.instances.values()) {
    if (i.vars.pixels) bytes += i.vars.pixels * 3;
    if (/^module\/ssd1306/.test(i.part.id)) bytes += 21 * 8;
  }
  return bytes;
}

/** What the chip itself, its stack and the core's buffers take of the memory, at least. */
const OWN_RAM_BYTES = 400;

function lacksOf(project: Project, part: Part, netlist: Netlist | null): string[] {
  const board = part.board!;
  const host = project.parts.find((p) => p.part === part.id);
  const out: string[] = [];
  const role = host?.options?.usbRole;
  if (role && role !== "serial" && board.usb.kind !== "native")
    out.push(`no native USB, so it can't be a ${String(role)}`);
  if (host?.options?.radio === true && !board.radio.length) out.push("no radio");
  const bytes = netlist ? memoryFor(netlist) : 0;
  if (bytes && bytes + OWN_RAM_BYTES > board.ram_kB * 1024)
    out.push(
      `${board.ram_kB} kB of memory is too little for ${Math.round(bytes / 102.4) / 10} kB of lights and displays`,
    );
  return out;
}

const VOLTAGES = new Set([
  "power.overload",
  "power.tight",
  "power.range",
  "power.regulator-heat",
  "power.dropout",
  "power.no-supply",
  "power.short",
  "current.chip",
  "current.pin",
]);

function tightestLimit(c: Circuit): BoardTrial["supply"]["tightest"] {
  const share = (l: (typeof c.power.limits)[number]) => l.flow.peak / l.limit_A;
  const list = c.power.limits.filter((l) => l.limit_A > 0 && l.flow.peak > 0);
  if (!list.length) return null;
  const l = list.reduce((a, b) => (share(b) > share(a) ? b : a));
  return { says: l.says, peak_A: l.flow.peak, limit_A: l.limit_A };
}

function supplyVerdict(c: Circuit, list: ReturnType<typeof findings>): BoardTrial["supply"] {
  const worst = list.find((f) => VOLTAGES.has(f.rule) && f.severity !== "note");
  const tightest = tightestLimit(c);
  return worst
    ? { severity: worst.severity as "stop", says: worst.message, tightest }
    : { severity: "fine", says: "the supplies hold", tightest };
}

function fitWords(shifting: number, unfed: string[], lacks: string[]): string {
  const but = [
    ...lacks,
    ...(shifting ? [`${many(shifting, "signal", "signals")} would need a level change`] : []),
    ...(unfed.length ? [`nothing here feeds ${unfed.join(" and ")}`] : []),
  ];
  return but.length ? `the pins fit; ${but.join("; ")}` : "fits as it is";
}

function factsOf(part: Part): string {
  const b = part.board!;
  const V = Number(part.supplies[b.logicSupply]?.V.typ ?? 0);
  return [
    `${V} V logic`,
    b.usb.kind === "native" ? "native USB" : b.usb.kind === "bridge" ? "USB by a serial bridge" : "no USB",
    b.radio.length ? b.radio.join(" and ") : "no radio",
    `${b.ram_kB} kB memory`,
    b.headersSoldered ? "headers soldered" : "headers to solder",
  ].join(", ");
}

/** Options of the host that are wishes of the project and hold on any board. */
const ROLES = ["usbRole", "radio"];

function onBoard(project: Project, host: string | undefined, board: Part, catalogue: Catalogue): Project {
  if (!host) return applyEdit(project, { type: "addPart", part: board.id }, catalogue);
  const now = project.parts.find((p) => p.ref === host)!;
  if (now.part === board.id) return project;
  const moved = applyEdit(project, { type: "changePart", ref: host, part: board.id }, catalogue);
  const kept = Object.fromEntries(
    Object.entries(now.options ?? {}).filter(([k]) => ROLES.includes(k) && board.options.some((o) => o.key === k)),
  );
  return Object.keys(kept).length
    ? { ...moved, parts: moved.parts.map((p) => (p.ref === host ? { ...p, options: kept } : p)) }
    : moved;
}

function trial(project: Project, host: string | undefined, board: Part, catalogue: Catalogue): BoardTrial {
  const now = project.parts.find((p) => p.ref === host);
  const tried = onBoard(project, host, board, catalogue);
  const a = assign(tried, catalogue, TRIAL_MS);
  const planned = isPlanned(a);
  const c = planned ? circuitOf(a.project, catalogue) : null;
  const ref = defaultHost(tried, partLookup(tried, catalogue))!;
  const over = new Set(c?.levels.filter((v) => v.highest_V > v.ceiling + 1e-9).map((v) => v.net.name));
  const short = new Set(c?.levels.filter((v) => v.marginHigh < 0 || v.marginLow < 0).map((v) => v.net.name));
  const unfed = c ? unfedParts(c.netlist) : [];
  // The wish of the old board is the wish of the project.
  const wish = {
    ...project,
    parts: project.parts.map((p) => (p.ref === host ? { ...p, part: board.id, options: now?.options } : p)),
  };
  const lacks = lacksOf(wish, board, c?.netlist ?? null);
  const list = c ? findings(c) : [];
  const shifters = new Set([...over, ...short]).size;
  const b = board.board!;
  return {
    board: board.id,
    name: board.name,
    fits: planned,
    cost: a.cost,
    spare: a.spare.filter((s) => s.host === ref).length,
    left: c ? leftByKind(board, ref, a.spare) : [],
    overdriven: over.size,
    short: short.size,
    shifters,
    unfed,
    supply: c
      ? supplyVerdict(c, list)
      : { severity: "fine", says: "not known while the pins do not fit", tightest: null },
    lacks,
    stops: list.filter((f) => f.severity === "stop").length,
    faults: list.filter((f) => f.severity === "fault").length + lacks.length,
    why: planned ? fitWords(shifters, unfed, lacks) : (a.clash ?? "does not fit"),
    cautions: list.filter((f) => f.rule.startsWith("pin.") && (f.severity === "risk" || f.severity === "note")).length,
    current: board.id === now?.part,
    owned: (project.drawer.parts[board.id] ?? 0) > 0,
    facts: factsOf(board),
    V: Number(board.supplies[b.logicSupply]?.V.typ ?? 0),
    usb: b.usb.kind,
    radio: b.radio,
    flash_kB: b.flash_kB,
    ram_kB: b.ram_kB,
    mm: board.body.mm,
    solder: !b.headersSoldered,
    breadboard: b.rowPitch_mm !== undefined,
    price: b.price,
    targets: Object.keys(b.targets),
    certainty: board.certainty,
    ...(planned && { project: a.project }),
  };
}

const troubles = (b: BoardTrial) => b.stops + b.faults;

/** A bare chip wants a breadboard full of support parts: ready boards come first. */
const isChip = (b: BoardTrial) => partKind(b.board) === "chip";

/** Every board that a parts list can be tried on: the project's own ones, then the catalogue's. */
export function boardsOf(project: Project, catalogue: Catalogue): Part[] {
  const own = new Set(project.customParts.map((p) => p.id));
  return [...project.customParts, ...catalogue.parts.filter((p) => !own.has(p.id))].filter((p) => p.board);
}

/**
 * Fitting boards first, then fewer troubles; without a soldering iron those that come ready; then what is in the drawer or in
 * use, then ready boards; for a prototype those that need no soldering; then the cheaper plan.
 */
export function sortTrials(list: readonly BoardTrial[], brief: Project["brief"]): BoardTrial[] {
  const bySolder = (x: BoardTrial, y: BoardTrial) => Number(x.solder) - Number(y.solder);
  return list
    .map((b, i) => ({ b, i }))
    .sort(
      (x, y) =>
        Number(y.b.fits) - Number(x.b.fits) ||
        troubles(x.b) - troubles(y.b) ||
        (brief.iron ? 0 : bySolder(x.b, y.b)) ||
        Number(y.b.owned) - Number(x.b.owned) ||
        Number(y.b.current) - Number(x.b.current) ||
        Number(isChip(x.b)) - Number(isChip(y.b)) ||
        (brief.stage === "prototype" ? bySolder(x.b, y.b) : 0) ||
        x.b.cost - y.b.cost ||
        x.i - y.i,
    )
    .map(({ b }) => b);
}

/**
 * Solves the parts list on every board of the catalogue, wires to the old board dropped, and judges each plan: levels,
 * supply, roles, memory. Pauses before each board, with those that are done.
 */
export function* rankBoardsSlowly(
  project: Project,
  catalogue: Catalogue,
): Generator<readonly BoardTrial[], BoardTrial[], boolean | undefined> {
  const host = defaultHost(project, partLookup(project, catalogue));
  const out: BoardTrial[] = [];
  for (const board of boardsOf(project, catalogue)) {
    if (yield out) break;
    out.push(trial(project, host, board, catalogue));
  }
  return sortTrials(out, project.brief);
}

/** `rankBoardsSlowly` without pauses; after `most_ms` those that were tried until then. */
export function rankBoards(project: Project, catalogue: Catalogue, most_ms = Infinity): BoardTrial[] {
  const run = rankBoardsSlowly(project, catalogue);
  const until = performance.now() + most_ms;
  for (;;) {
    const r = run.next(performance.now() > until);
    if (r.done) return r.value;
  }
}
