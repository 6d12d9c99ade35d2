import { evaluate } from "../quantity";
import { optionVars, summarise, talkWords, type Catalogue, type Part } from "../parts/catalogue";
import { defaultHost, partLookup, type Project } from "../project";
import { thingById, type Hints } from "./read";
import { MOST_OF_ONE, type Thing, type Way } from "./types";

/** A way as it is offered for a project: what decides, in words, and how it stands against the others. */
export interface OfferedWay {
  id: string;
  /** Its parts by name, with how many of them are in the drawer. */
  parts: { part: string; name: string; label: string; owned: boolean }[];
  owned: boolean;
  price: Way["price"];
  /** What speaks for it and against it, the weightiest first. */
  pros: string[];
  cons: string[];
  score: number;
}

/** What is offered for one wish, the best first. */
export interface Offer {
  thing: string;
  name: string;
  verb: Thing["verb"];
  /** As many of it as may be wished. */
  most: number;
  /** So many where nothing is said. */
  usual: number;
  ways: OfferedWay[];
}

const MOST_WAYS = 3;
/** As many of a thing as may be wished: what holds several in one may hold more. */
const mostOf = (t: Thing): number =>
  t.many === undefined ? 1 : Math.max(MOST_OF_ONE, ...t.ways.flatMap((w) => w.pieces.map((p) => p.holds?.most ?? 0)));
const PRICE = { 1: "cheap", 2: "costs a little more", 3: "the dearest of them" } as const;

/** The logic voltage of the project's board; undefined without one. */
function logicVolts(project: Project, catalogue: Catalogue): number | undefined {
  const partOf = partLookup(project, catalogue);
  const board = partOf(defaultHost(project, partOf) ?? "")?.board;
  const host = partOf(defaultHost(project, partOf) ?? "");
  const s = board && host?.supplies[board.logicSupply];
  return s && evaluate(s.V.typ, optionVars(host!, {}));
}

const pinWords = (part: Part): string | null => {
  const s = summarise(part);
  if (!s.pins) return null;
  const shared = s.talks.includes("i2c") ? 2 : s.talks.includes("spi") ? 3 : 0;
  const bus = talkWords(shared === 2 ? "i2c" : "spi");
  if (shared)
    return s.pins <= shared
      ? `${s.pins} pins that others share (${bus})`
      : `${s.pins} pins, ${shared} of them shared on ${bus}`;
  return `${s.pins} ${s.talks.includes("analogue") ? "analogue " : ""}pin${s.pins > 1 ? "s" : ""}`;
};

const SOLDER: Record<Part["body"]["solder"], string | null> = {
  none: "nothing to solder",
  headers: "its pins are often loose: to be soldered on",
  wires: "wires are soldered to it",
  leads: null,
};

/** What decides between ways, one row each: how it counts, and what is said. */
function judge(w: Way, parts: readonly Part[], project: Project, V: number | undefined, hints: Hints) {
  const pros: string[] = [];
  const cons: string[] = [];
  let score = 0;
  const point = (n: number, says: string | null) => {
    score += n;
    if (says) (n >= 0 ? pros : cons).push(says);
  };
  const has = (id: string) => (project.drawer.parts[id] ?? 0) > 0;
  const owned = parts.length > 0 && parts.every((p) => has(p.id));
  if (owned) point(8, "in your drawer");
  else if (parts.some((p) => has(p.id))) point(3, "some of it is in your drawer");
  point(0, w.good);
  const outdoors = hints.outdoors === true || project.brief.place !== "room";
  if (outdoors && w.where === "in") point(-4, "made for indoors: it wants a dry box out there");
  else if (outdoors) point(2, "stands being outside");
  if (V !== undefined && parts.length) {
    const word = `${Number(V.toFixed(1))}v`;
    const fits = parts.every((p) => !summarise(p).volts.length || summarise(p).volts.includes(word));
    if (fits) point(2, `runs at ${Number(V.toFixed(1))} V, as this board does`);
    else
      point(
        -2,
        `does not run at this board's ${Number(V.toFixed(1))} V: the plan feeds it otherwise and sees to the levels`,
      );
  }
  const noIron = hints.noIron === true || !project.brief.iron;
  for (const p of parts) {
    const bad = p.body.solder === "wires" || p.body.solder === "headers";
    if (noIron) point(bad ? -3 : 0.5, SOLDER[p.body.solder]);
  }
  if (hints.exact && w.exact)
    point(w.exact - 2, w.exact === 3 ? "exact" : w.exact === 1 ? "only a hint, no measurement" : null);
  if (hints.cheap) point(2 * (2 - w.price), PRICE[w.price]);
  else if (w.price > 1) point(0, PRICE[w.price]);
  for (const p of parts) {
    const pins = pinWords(p);
    // Not twice what its own words say.
    if (pins && !/\bpins?\b/.test(w.good)) pros.push(pins);
    const m = p.measures.find((x) => x.accuracy);
    if (m?.accuracy) pros.push(`${m.what}: ${m.accuracy}`);
  }
  if (w.but) cons.push(w.but);
  return { pros: [...new Set(pros)], cons: [...new Set(cons)], score, owned };
}

/**
 * Two or three ways for each wish, with what decides: the drawer first, then the board's voltage, where it lives, soldering, and what
 * the words ask for (cheap, exact). Ways whose parts the catalogue does not have are left out.
 */
export function offersFor(
  things: readonly string[],
  project: Project,
  catalogue: Catalogue,
  hints: Hints = {},
): Offer[] {
  const V = logicVolts(project, catalogue);
  return things.flatMap((id): Offer[] => {
    const thing = thingById(id);
    if (!thing) return [];
    const ways = thing.ways.flatMap((w, i): OfferedWay[] => {
      const parts = w.pieces.map((p) => catalogue.get(p.part));
      if (parts.some((p) => p === undefined)) return [];
      const { pros, cons, score, owned } = judge(w, parts as Part[], project, V, hints);
      return [
        {
          id: w.id,
          parts: w.pieces.map((p, k) => ({
            part: p.part,
            name: parts[k]!.name,
            label: p.label,
            owned: (project.drawer.parts[p.part] ?? 0) > 0,
          })),
          owned,
          price: w.price,
          pros,
          cons,
          // The table's own order decides between equals.
          score: score - i,
        },
      ];
    });
    return [
      {
        thing: id,
        name: thing.name,
        verb: thing.verb,
        most: mostOf(thing),
        usual: thing.usual ?? 1,
        ways: ways.sort((a, b) => b.score - a.score).slice(0, MOST_WAYS),
      },
    ];
  });
}
