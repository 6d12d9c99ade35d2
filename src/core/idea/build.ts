import { findings, verdict } from "../checks";
import { circuitOf } from "../circuit";
import { planAll } from "../plan/advice";
import type { Catalogue } from "../parts/catalogue";
import { applyEdit, defaultHost, nextRef, partLookup, type Edit, type Project } from "../project";
import { harm, mended } from "./mended";
import { thingById, type Hints } from "./read";
import type { Thing } from "./types";

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
}
export interface Built {
  project: Project;
  /** What was put in beside the chosen parts, so that the plan is sound. */
  did: string[];
  /** Why the parts do not fit the board; null: they do. */
  clash: string | null;
  verdict: string;
}

const CELLS = ["supply/aa-3", "supply/aa-4", "supply/li-ion-1s", "supply/battery-9v", "supply/power-bank"];
const MAINS = ["supply/usb-port", "supply/usb-charger"];
/** The parts of the chosen ways joined to the project; one that two things share is taken once. */
function withParts(project: Project, catalogue: Catalogue, choices: readonly Choice[]): Project {
  const put = new Set<string>();
  return choices.reduce((p, { thing, way }) => {
    const pieces = thingById(thing)?.ways.find((w) => w.id === way)?.pieces ?? [];
    return pieces.reduce((q, piece): Project => {
      // Loose lights and buttons are one each; a sensor that tells both things is there once.
      const shared = !piece.part.startsWith("discrete/led") && piece.part !== "discrete/button";
      if ((shared && put.has(piece.part)) || !catalogue.get(piece.part)) return q;
      put.add(piece.part);
      return applyEdit(
        q,
        {
          type: "addPart",
          part: piece.part,
          ref: nextRef(q, piece.part),
          label: piece.label,
          ...(piece.options && { options: { ...piece.options } }),
        },
        catalogue,
      );
    }, p);
  }, project);
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
  const based = withParts(
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
    const done = a.clash ? { project: a.project, did: [] } : mended(project, a.project, catalogue);
    return { ...done, clash: a.clash, harm: harm(project, done.project, catalogue) };
  };
  const tries = (fed ? [null] : o.hints?.battery ? CELLS : MAINS).filter((s) => s === null || catalogue.get(s));
  let best = finish(tries[0]!);
  for (const s of tries.slice(1)) {
    if (best.clash || best.harm === 0) break;
    const next = finish(s);
    if (next.harm < best.harm) best = next;
  }
  const c = circuitOf(best.project, catalogue);
  return { project: best.project, did: best.did, clash: best.clash, verdict: verdict(c, findings(c)).words };
}

/** Every part that offers for these things, boards to begin with and supplies may bring in: to be loaded before. */
export const ideaParts = (things: readonly string[], project: Project): string[] => [
  ...things.flatMap((id) => thingById(id)?.ways.flatMap((w) => w.pieces.map((p) => p.part)) ?? []),
  ...BOARDS.map((b) => b.part),
  ...Object.keys(project.drawer.parts).filter((id) => id.startsWith("board/")),
  ...CELLS,
  ...MAINS,
];
