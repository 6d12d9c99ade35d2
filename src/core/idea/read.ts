import { ACTS } from "./acts";
import { SENSES } from "./senses";
import type { Thing, Verb } from "./types";

export const THINGS: readonly Thing[] = [...SENSES, ...ACTS];
const byId = new Map(THINGS.map((t) => [t.id, t]));
export const thingById = (id: string): Thing | undefined => byId.get(id);
export const thingsOf = (verb: Verb): Thing[] => THINGS.filter((t) => t.verb === verb);

/** What the words say of the whole, beside what it should do. */
export interface Hints {
  /** It lives outside. */
  outdoors?: true;
  /** It runs on cells. */
  battery?: true;
  /** Nobody can or wants to solder. */
  noIron?: true;
  cheap?: true;
  exact?: true;
}

export interface Wish {
  thing: string;
  /** The words that it was found by, as they were typed. */
  by: string;
}

export interface Reading {
  wishes: Wish[];
  /** What the words say they do without. */
  without: string[];
  hints: Hints;
  /** Pieces of the text that say nothing to us. */
  unread: string[];
}

/** Longer texts are read up to here. */
export const MOST_LETTERS = 2000;

const HINTS: [keyof Hints, RegExp][] = [
  [
    "outdoors",
    /\b(?:outside|outdoors?|garden|balcony|terrace|allotment|field|meadow|roof|yard|pond|barrel|hive|greenhouse|stable|porch|bike|boat|in the (?:rain|wet|wood|forest)|weather ?proof|water ?proof)\b/,
  ],
  [
    "battery",
    /\b(?:batter(?:y|ies)|cells?\b(?! phone)|portable|no (?:plug|socket|outlet)|without (?:a )?(?:plug|socket|outlet|mains|cable)|solar|carr(?:y|ied) (?:it )?(?:around|with)|wear(?:able)?|pocket|\bbike\b|field|meadow)\b/,
  ],
  [
    "noIron",
    /\b(?:(?:no|without|can(?:'|no)?t|don'?t want to|avoid|never) (?:a )?solder\w*|no soldering iron|solderless)\b/,
  ],
  ["cheap", /\b(?:cheap\w*|low ?cost|little money|inexpensive|pocket money|as little as possible)\b/],
  ["exact", /\b(?:exact(?:ly)?|accurate(?:ly)?|precise(?:ly)?|to the (?:degree|gram|millimetre)|scientific)\b/],
];

const NOT_BEFORE =
  /\b(?:no|not|never|without|instead of|don'?t (?:need|want))(?: need| want)?(?: (?:a|an|any|the|to))*\s*$/;

/** What is said to be left out, and would be no part of its own anyway. */
const LEFT_OUT =
  /\b(?:no|without)(?: (?:a|an|any))? (?:sounds?|noise|lights?|lamps?|screens?|motors?|cables?|wires?|phones?|computer|internet)\b/g;

/**
 * Words that say little by themselves: they count only where nothing else of these verbs is wished. "Show" is a display unless a
 * needle, digits or pictures are named; "send" is a radio unless the way is named.
 */
const GENERAL: { thing: string; words: RegExp; unless: readonly Verb[] }[] = [
  { thing: "text", words: /^(?:shows?|displays?)\b/, unless: ["show"] },
  { thing: "digits", words: /^(?:clock|countdown)$/, unless: ["show", "light"] },
  { thing: "radio", words: /^send/, unless: ["send"] },
  { thing: "beep", words: /^(?:bell|rings?)$/, unless: ["sound"] },
];

interface Found {
  thing: Thing;
  at: number;
  to: number;
}

const PATTERNS: [Thing, RegExp][] = THINGS.map((t) => [t, new RegExp(`(?<![\\w])(?:${t.words.join("|")})`, "g")]);

/** Everything that the table finds, the longer of two findings of one verb where one lies in the other. */
function findings(text: string): Found[] {
  const all = PATTERNS.flatMap(([thing, re]) =>
    [...text.matchAll(re)].flatMap((m): Found[] => (m[0] ? [{ thing, at: m.index, to: m.index + m[0].length }] : [])),
  );
  const inside = (a: Found, b: Found) => a !== b && a.at >= b.at && a.to <= b.to && (a.at > b.at || a.to < b.to);
  // "Switch the fan on": what is switched has a way of its own. The lamp of a desk or an aquarium is no small light.
  const OWN_WAY = new Set<Verb>(["move", "light", "switch"]);
  const beside = (a: Found, b: Found) => a.at < b.to && b.at < a.to;
  const overruled = (a: Found) =>
    (a.thing.id === "appliance" && all.some((b) => OWN_WAY.has(b.thing.verb) && b.thing !== a.thing && inside(b, a))) ||
    (a.thing.id === "lamp" && all.some((b) => b.thing.id === "room-light" && beside(a, b)));
  const left = all.filter((a) => !overruled(a));
  return left.filter((a) => !left.some((b) => b.thing.verb === a.thing.verb && b.thing !== a.thing && inside(a, b)));
}

/** Pieces between stops and joining words. */
const pieces = (text: string): { at: number; text: string }[] => {
  const out: { at: number; text: string }[] = [];
  let at = 0;
  for (const piece of text.split(/([.;,!?\n]| and | then | but )/)) {
    if (!/^([.;,!?\n]| and | then | but )$/.test(piece) && piece.trim()) out.push({ at, text: piece });
    at += piece.length;
  }
  return out;
};

/**
 * Reads what somebody wants in their own words: which things of the table it should sense, show, move and so on, in the order of
 * the text, what it should do without, and what the words say of where and how it lives. Needs no network and guesses nothing: what
 * no word of the table stands in comes back in `unread`.
 */
export function readIdea(typed: string): Reading {
  // Letter by letter, so that places in it are places in what was typed.
  const text = typed
    .slice(0, MOST_LETTERS)
    .replace(/[’‘]/g, "'")
    .replace(/[A-Z]/g, (c) => c.toLowerCase());
  const found = findings(text).sort((a, b) => a.at - b.at || b.to - a.to);
  const negated = (f: Found) => NOT_BEFORE.test(text.slice(Math.max(0, f.at - 30), f.at));
  const wishes = new Map<string, Wish>();
  const without = new Set<string>();
  for (const f of found) {
    if (negated(f)) without.add(f.thing.id);
    else if (!wishes.has(f.thing.id)) wishes.set(f.thing.id, { thing: f.thing.id, by: typed.slice(f.at, f.to) });
  }
  for (const g of GENERAL) {
    const w = wishes.get(g.thing);
    const other = [...wishes.keys()].some(
      (id) => id !== g.thing && id !== "alert" && g.unless.includes(thingById(id)!.verb),
    );
    if (w && g.words.test(w.by.toLowerCase()) && other) wishes.delete(g.thing);
  }
  const hints: Hints = {};
  const said: [number, number][] = [
    ...found.map((f) => [f.at, f.to] as [number, number]),
    ...[...text.matchAll(LEFT_OUT)].map((m) => [m.index, m.index + m[0].length] as [number, number]),
  ];
  for (const [key, re] of HINTS) {
    const m = re.exec(text);
    if (m) {
      hints[key] = true;
      said.push([m.index, m.index + m[0].length]);
    }
  }
  const unread = pieces(text)
    .filter((p) => !said.some(([a, b]) => a < p.at + p.text.length && b > p.at))
    .map((p) => typed.slice(p.at, p.at + p.text.length).trim())
    .filter((t) => t.split(/\s+/).length > 1);
  return { wishes: [...wishes.values()].filter((w) => !without.has(w.thing)), without: [...without], hints, unread };
}
