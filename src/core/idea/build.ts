import { findings, verdict } from "../checks";
import { circuitOf } from "../circuit";
import { canDim } from "../circuit/netlist";
import type { AssignResult } from "../plan/assign";
import { planAll, best, remediesSlowly, REMEDY_PARTS, type Remedy } from "../plan/advice";
import type { Catalogue } from "../parts/catalogue";
import { applyEdit, defaultHost, nextRef, partLookup, toldHowMuch, type Edit, type Project } from "../project";
import { rulesView } from "../firmware/rules/view";
import { rulesFor, shortWords, type Wired } from "./does";
import { harm, mended } from "./mended";
import { thingById, type Hints } from "./read";
import { MOST_OF_ONE, type Piece, type Thing } from "./types";

/** A board that is offered where the project has none. */
export interface OfferedBoard {
  part: string;
  name: string;
  owned: boolean;
  pros: string[];
  score: number;
}

/** Boards to begin with, the usual first; whatever is in the drawer joins them. */
const BOARDS: { part: string; good: string }[] = [
  { part: "board/rp2040-forty", good: "many pins for little money, programmed in Python or C++" },
  { part: "board/atmega328p-long", good: "sockets for leads: nothing to solder, forgives much" },
  { part: "board/esp32-thirtyeight", good: "a radio for the house's network, many pins" },
  { part: "board/rp2040-forty-radio", good: "a radio, programmed in Python or C++" },
  { part: "board/esp32-c3-mini", good: "small, with a radio" },
];
const MOST_BOARDS = 3;

const wants = (things: readonly string[], what: Thing["board"]) => things.some((t) => thingById(t)?.board === what);

/** Two or three boards for the things that are wanted, the drawer's first; none where the project has one. */
export function boardsFor(
  things: readonly string[],
  project: Project,
  catalogue: Catalogue,
  hints: Hints = {},
): OfferedBoard[] {
  if (defaultHost(project, partLookup(project, catalogue))) return [];
  const owned = Object.keys(project.drawer.parts).filter(
    (id) => id.startsWith("board/") && project.drawer.parts[id]! > 0,
  );
  const list = [
    ...BOARDS,
    ...owned.filter((id) => !BOARDS.some((b) => b.part === id)).map((part) => ({ part, good: "" })),
  ];
  const noIron = hints.noIron === true || !project.brief.iron;
  return list
    .flatMap(({ part, good }, i): OfferedBoard[] => {
      const def = catalogue.get(part);
      if (!def?.board || (wants(things, "wifi") && !def.board.radio.includes("wifi"))) return [];
      const mine = owned.includes(part);
      const ready = def.board.headersSoldered;
      const pros = [
        mine && "in your drawer",
        good,
        noIron && (ready ? "comes with its pins soldered" : "its pins are loose: to be soldered"),
      ];
      const score = (mine ? 8 : 0) + (noIron && ready ? 4 : 0) + (hints.cheap && def.board.price === "low" ? 1 : 0) - i;
      return [{ part, name: def.name, owned: mine, pros: pros.filter((x): x is string => Boolean(x)), score }];
    })
    .sort((a, b) => b.score - a.score)
    .slice(0, MOST_BOARDS);
}

export interface Choice {
  thing: string;
  way: string;
  /** So many of them; one where nothing is said. */
  many?: number;
  /** Where the words speak of it. */
  places?: readonly number[];
}
export interface Built {
  project: Project;
  /** What was put in beside the chosen parts, so that the plan is sound. */
  did: string[];
  /** What the project does by its rules, in sentences; none where the words gave no rule. */
  does: string[];
  /** What of it is less than the words may hope for. */
  short: string[];
  /** Why the parts do not fit the board; null: they do. */
  clash: string | null;
  verdict: string;
}

const CELLS = ["supply/aa-3", "supply/aa-4", "supply/li-ion-1s", "supply/battery-9v", "supply/power-bank"];
const MAINS = ["supply/usb-port", "supply/usb-charger", "supply/adapter-5v-2a"];
/** How many of a piece make so many of what is wished, and with which options. */
function piecesOf(piece: Piece, many: number): { count: number; options: Piece["options"] } {
  const { holds, options } = piece;
  if (holds)
    return { count: 1, options: many > 1 ? { ...options, [holds.option]: Math.min(many, holds.most) } : options };
  return { count: Math.ceil(Math.min(many, MOST_OF_ONE) / (piece.per ?? 1)), options };
}

/** The parts of the chosen ways joined to the project; one that two things share is taken once. */
function withParts(
  project: Project,
  catalogue: Catalogue,
  choices: readonly Choice[],
): { project: Project; wired: Wired[] } {
  const put = new Map<string, string[]>();
  const wired: Wired[] = [];
  const joined = choices.reduce((p, { thing, way, many = 1, places = [] }) => {
    const pieces = thingById(thing)?.ways.find((w) => w.id === way)?.pieces ?? [];
    const refs: string[] = [];
    wired.push({ thing, refs, places });
    return pieces.reduce((q, piece): Project => {
      // Loose lights and buttons are one each; a sensor that tells both things is there once.
      const shared = !piece.part.startsWith("discrete/led") && piece.part !== "discrete/button";
      const there = shared ? put.get(piece.part) : undefined;
      if (there) refs.push(...there);
      if (there || !catalogue.get(piece.part)) return q;
      const several = piecesOf(piece, many);
      const before = refs.length;
      const after = Array.from({ length: several.count }, (_, k) => k + 1).reduce((r, k) => {
        const ref = nextRef(r, piece.part);
        refs.push(ref);
        return applyEdit(
          r,
          {
            type: "addPart",
            part: piece.part,
            ref,
            label: several.count > 1 ? `${piece.label} ${k}` : piece.label,
            ...(several.options && { options: { ...several.options } }),
          },
          catalogue,
        );
      }, q);
      put.set(piece.part, refs.slice(before));
      return after;
    }, p);
  }, project);
  return { project: joined, wired };
}

/** What makes a plan fit without another board, and without leaving out what is wished. */
const HELPS = new Set(["strap", "add", "software"]);
/** So many remedies are tried: each is a whole plan. */
const MOST_REMEDIES = 20;
const ENOUGH = 3;
/** A plan that does not fit with the best of the remedies that make it do so; null: there is none. */
function fitted(
  project: Project,
  catalogue: Catalogue,
  clash: AssignResult,
): { project: Project; did: string[] } | null {
  const run = remediesSlowly(project, catalogue, clash);
  let helps: Remedy[] = [];
  for (let i = 0; i < MOST_REMEDIES && helps.length < ENOUGH; i++) {
    const r = run.next(false);
    // A fault that is left is the checks' own to mend.
    helps = r.value.filter((x) => HELPS.has(x.kind) && !x.stops);
    if (r.done) break;
  }
  const help = best(helps)[0];
  return help ? { project: help.project, did: [help.label] } : null;
}

/**
 * A project from what was chosen: a board and a supply where there is none, the parts of each way, everything planned, and what
 * the checks ask for since then put in by their own fixes. On cells the supply is tried, the kind that harms least.
 */
export function buildIdea(
  project: Project,
  catalogue: Catalogue,
  o: { choices: readonly Choice[]; board?: string; hints?: Hints; goal?: string },
): Built {
  const partOf = partLookup(project, catalogue);
  const things = o.choices.map((c) => c.thing);
  const edits: Edit[] = [];
  const host = defaultHost(project, partOf);
  const board = host ?? "B1";
  if (!host)
    edits.push({
      type: "addPart",
      part: o.board ?? boardsFor(things, project, catalogue, o.hints)[0]?.part ?? BOARDS[0]!.part,
      ref: board,
      label: "Controller",
    });
  if (wants(things, "wifi")) edits.push({ type: "setOption", ref: board, key: "radio", value: "true" });
  // The words become the project's own, where it has none yet.
  const goal = o.goal?.trim();
  if (goal && !project.brief.goal) edits.push({ type: "setBrief", brief: { goal } });
  if (o.hints?.outdoors && project.brief.place === "room")
    edits.push({ type: "setBrief", brief: { place: "shelter" } });
  const { project: based, wired } = withParts(
    edits.reduce((p, e) => applyEdit(p, e, catalogue), project),
    catalogue,
    o.choices,
  );
  const fed = based.parts.some((p) => p.part.startsWith("supply/"));
  const finish = (supply: string | null) => {
    const p = supply
      ? applyEdit(based, { type: "addPart", part: supply, ref: nextRef(based, supply) }, catalogue)
      : based;
    const a = planAll(p, catalogue);
    const fits = a.clash ? fitted(a.project, catalogue, a) : { project: a.project, did: [] };
    if (!fits) return { project: a.project, did: [], clash: a.clash, harm: harm(project, a.project, catalogue) };
    const done = mended(project, fits.project, catalogue);
    return {
      project: done.project,
      did: [...fits.did, ...done.did],
      clash: null,
      harm: harm(project, done.project, catalogue),
    };
  };
  const tries = (fed ? [null] : o.hints?.battery ? CELLS : MAINS).filter((s) => s === null || catalogue.get(s));
  let best = finish(tries[0]!);
  for (const s of tries.slice(1)) {
    if (best.clash || best.harm === 0) break;
    const next = finish(s);
    if (next.harm < best.harm) best = next;
  }
  const planned = circuitOf(best.project, catalogue);
  const rules = best.clash ? null : rulesFor(planned, wired, o.goal ?? "");
  const said = rules ? applyEdit(best.project, { type: "setRules", rules }, catalogue) : best.project;
  // A light that is told how bright it is wants a pin with pulses.
  const dims = [...planned.netlist.expanded.instances.values()].some(
    (x) => toldHowMuch(rules ?? []).has(x.ref) && canDim(x.part),
  );
  const again = dims ? planAll(said, catalogue) : null;
  const told = again && !again.clash ? again.project : said;
  const c = rules ? circuitOf(told, catalogue) : planned;
  const all = rules ? rulesView(c).rules : [];
  // A rule that this board's program can't follow is not asked for.
  const good = all.filter((r) => r.why === null);
  const final =
    good.length < all.length ? applyEdit(told, { type: "setRules", rules: good.map((r) => r.rule) }, catalogue) : told;
  return {
    project: final,
    did: best.did,
    does: good.map((r) => r.says),
    short: shortWords(
      good.map((r) => r.rule),
      wired,
    ),
    clash: best.clash,
    verdict: verdict(c, findings(c)).words,
  };
}

/** Every part that offers for these things, boards to begin with and supplies may bring in: to be loaded before. */
export const ideaParts = (things: readonly string[], project: Project): string[] => [
  ...things.flatMap((id) => thingById(id)?.ways.flatMap((w) => w.pieces.map((p) => p.part)) ?? []),
  ...BOARDS.map((b) => b.part),
  ...Object.keys(project.drawer.parts).filter((id) => id.startsWith("board/")),
  ...CELLS,
  ...MAINS,
  ...REMEDY_PARTS,
];
