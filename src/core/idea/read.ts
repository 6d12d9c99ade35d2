import { ACTS } from "./acts";
import { SENSES } from "./senses";
import type { Thing, Verb } from "./types";
import { BEYOND } from "./words/beyond";
import { countOf } from "./words/counts";
import { wordPattern } from "./words/forms";
import { MADE_OF, WEAK, type Implied } from "./words/implied";
import { everyOf } from "./words/times";
import { meantWord } from "./words/spelling";

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
  /** Where in the text it is spoken of. */
  places: number[];
  /** So many of them, where the words say more than one. */
  many?: number;
}

export interface Reading {
  wishes: Wish[];
  /** What the words say they do without. */
  without: string[];
  hints: Hints;
  /** Pieces of the text that say nothing to us. */
  unread: string[];
  /** What boards like these can't or must not do, with what to do instead. */
  beyond: { by: string; says: string }[];
  /** Words that were taken for slips of others. */
  slips: { by: string; as: string }[];
  /** What it lacks to be whole: what makes it begin (`sense`), or what comes of it (`act`). */
  half: "sense" | "act" | null;
}

/** What a wish says of its choice beside the way: how many, and where the words stand. */
export const choiceOf = (w: Wish | undefined): { many?: number; places?: readonly number[] } => ({
  ...(w?.many !== undefined && { many: w.many }),
  ...(w && { places: w.places }),
});

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

/** How a finding comes about: a thing is named, it belongs to what is named, or a word of little weight stands for it. */
const WEIGHT = { named: 3, part: 2, weak: 1 } as const;
interface Found {
  thing: Thing;
  at: number;
  to: number;
  weight: (typeof WEIGHT)[keyof typeof WEIGHT];
}

/** Things that stand for the same: what only belongs to something else gives way to what is named. */
const HAND = new Set([
  "button",
  "touch",
  "code",
  "tag",
  "stick",
  "remote",
  "knob",
  "shake",
  "tilt",
  "colour",
  "count-presses",
]);
const THERE = new Set([
  ...["motion", "door", "distance", "obstacle", "press", "shake", "count-people", "tag", "code", "button", "remote"],
  ...["temperature", "time", "tilt"],
]);
const ACTS_WITH: Partial<Record<Verb, readonly Verb[]>> = {
  show: ["show", "light"],
  light: ["light", "switch"],
  sound: ["sound"],
  move: ["move", "switch"],
  switch: ["switch", "move"],
  send: ["send"],
  log: ["log"],
};
const senses = (v: Verb) => v === "sense" || v === "count";
/** Whether a thing that is named leaves no need for another that is only meant. */
function rivals(named: Thing, meant: Thing, weight: number): boolean {
  if (named === meant) return false;
  if (meant.id === "count-presses" && weight === WEIGHT.weak) return senses(named.verb);
  if (meant.id === "alert") return ["sound", "light", "send"].includes(named.verb);
  // A door that has its hours does not go by the daylight as well.
  if (meant.id === "light-level" && weight === WEIGHT.part) return named.id === "time";
  // What is looked at on a telephone needs no display.
  if (meant.id === "text" && named.id === "wifi") return true;
  if (senses(meant.verb))
    return (
      senses(named.verb) && ((HAND.has(meant.id) && HAND.has(named.id)) || (THERE.has(meant.id) && THERE.has(named.id)))
    );
  return (ACTS_WITH[meant.verb] ?? []).includes(named.verb);
}

const compiled = (words: readonly string[]) => new RegExp(`(?<![\\w])(?:${words.map(wordPattern).join("|")})`, "g");
// Each pattern by itself, or a short one would hide a longer one that begins with it.
const NAMED = THINGS.flatMap((t) => t.words.map((w) => [t, compiled([w])] as const));
const implied = (list: readonly Implied[]) =>
  list.map((i) => [i.things.map((id) => byId.get(id)!), compiled(i.words)] as const);
const PARTS = implied(MADE_OF);
const WEAKS = implied(WEAK);
const spans = (re: RegExp, text: string): { at: number; to: number }[] =>
  [...text.matchAll(re)].flatMap((m) => (m[0] ? [{ at: m.index, to: m.index + m[0].length }] : []));
const within = (a: { at: number; to: number }, b: { at: number; to: number }) =>
  a.at >= b.at && a.to <= b.to && (a.at > b.at || a.to < b.to);
const shorter = (a: { at: number; to: number }, b: { at: number; to: number }) =>
  beside(a, b) && a.to - a.at < b.to - b.at;
const beside = (a: { at: number; to: number }, b: { at: number; to: number }) => a.at < b.to && b.at < a.to;

/** Findings of one thing that overlap, as one. */
function joined(list: readonly Found[]): Found[] {
  const out: Found[] = [];
  for (const f of [...list].sort((a, b) => a.at - b.at)) {
    const same = out.find((o) => o.thing === f.thing && beside(o, f));
    if (same) same.to = Math.max(same.to, f.to);
    else out.push({ ...f });
  }
  return out;
}

/**
 * Everything that the table finds. What is named inside the name of something else is no thing of its own, and the longer of two
 * findings of one verb counts where one lies in the other.
 */
function findings(text: string): Found[] {
  const wholes = PARTS.flatMap(([things, re]) => spans(re, text).map((s) => ({ ...s, things })));
  const outer = wholes.filter((a) => !wholes.some((b) => within(a, b)));
  const all = joined(
    NAMED.flatMap(([thing, re]) => spans(re, text).map((s): Found => ({ thing, ...s, weight: WEIGHT.named }))),
  ).filter(
    (a) =>
      !outer.some(
        (w) => !w.things.includes(a.thing) && (within(a, w) || (!w.things.length && a.at >= w.at && a.to <= w.to)),
      ),
  );
  // "Switch the fan on": what is switched has a way of its own. The lamp of a desk or an aquarium is no small light.
  const OWN_WAY = new Set<Verb>(["move", "light", "switch"]);
  const overruled = (a: Found) =>
    (a.thing.id === "appliance" && all.some((b) => OWN_WAY.has(b.thing.verb) && b.thing !== a.thing && beside(b, a))) ||
    (a.thing.id === "lamp" && all.some((b) => b.thing.id === "room-light" && beside(a, b))) ||
    (a.thing.id === "room-light" && all.some((b) => b.thing.id === "strip" && beside(a, b)));
  const left = all.filter((a) => !overruled(a));
  const named = left.filter(
    (a) => !left.some((b) => b.thing.verb === a.thing.verb && b.thing !== a.thing && shorter(a, b)),
  );
  const parts = outer.flatMap((w) =>
    w.things.map((thing): Found => ({ thing, at: w.at, to: w.to, weight: WEIGHT.part })),
  );
  const taken = [...named, ...outer];
  const weak = WEAKS.flatMap(([things, re]) =>
    spans(re, text)
      .filter((s) => things[0]!.id === "alert" || !taken.some((t) => t.at <= s.at && s.at < t.to))
      .flatMap((s) => things.map((thing): Found => ({ thing, ...s, weight: WEIGHT.weak }))),
  );
  return [...named, ...parts, ...weak];
}

const BEYOND_RES = BEYOND.map((b) => [new RegExp(`(?<![\\w])(?:${b.words})`), b.says] as const);

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

/** The text as patterns want it, and for each of its letters the place in what was typed. */
interface Plain {
  text: string;
  place: number[];
}

/** What a letter stands for, where that is not itself: no more than the marks that people type in different ways. */
function plainLetter(c: string): string {
  if (c === "\n") return c;
  if (/[-_\u2010-\u2014\s]/.test(c)) return " ";
  if (c === "’" || c === "‘") return "'";
  if (c === "&") return "and";
  return c >= "A" && c <= "Z" ? c.toLowerCase() : c;
}
/** Small letters, plain marks and single spaces. */
function plain(typed: string): Plain {
  const out: Plain = { text: "", place: [] };
  for (let i = 0; i < typed.length && i < MOST_LETTERS; i++)
    for (const c of plainLetter(typed[i]!)) {
      if (c === " " && out.text.endsWith(" ")) continue;
      out.text += c;
      out.place.push(i);
    }
  return out;
}

/** Words that nothing was found by, put right where they are a slip of one that the table has; null: there is none. */
function spelt(
  { text, place }: Plain,
  found: readonly Found[],
): (Plain & { slips: { at: number; to: number }[] }) | null {
  const out: Plain = { text: "", place: [] };
  const slips: { at: number; to: number }[] = [];
  let from = 0;
  for (const m of text.matchAll(/[a-z]+/g)) {
    if (found.some((f) => f.at <= m.index && m.index < f.to)) continue;
    const meant = meantWord(m[0]);
    if (meant === null) continue;
    out.text += text.slice(from, m.index);
    out.place.push(...place.slice(from, m.index));
    const last = place[m.index + m[0].length - 1]!;
    slips.push({ at: out.text.length, to: out.text.length + meant.length });
    out.text += meant;
    out.place.push(
      ...Array.from({ length: meant.length }, (_, i) =>
        i < meant.length - 1 ? Math.min(place[m.index]! + i, last) : last,
      ),
    );
    from = m.index + m[0].length;
  }
  if (!slips.length) return null;
  return { text: out.text + text.slice(from), place: [...out.place, ...place.slice(from)], slips };
}

/** In the order of the text, the longer first. */
const sorted = (list: Found[]) => list.sort((a, b) => a.at - b.at || b.to - a.to);

/** What an idea lacks to be whole: something that makes it begin, or something that comes of it. */
function halfOf(wishes: readonly Wish[], text: string): Reading["half"] {
  const verbs = wishes.map((w) => thingById(w.thing)!.verb);
  if (!verbs.length) return null;
  if (!verbs.some((v) => !senses(v))) return "act";
  if (verbs.some(senses) || verbs.includes("send") || everyOf(text) !== null) return null;
  if (verbs.some((v) => v === "move" || v === "switch" || v === "sound" || v === "log")) return "sense";
  // A light that blinks begins by itself.
  return !/\b(?:when|if|whenever|as soon as|once|until|each time|every time)\b/.test(text) ? null : "sense";
}

const OTHER_WARMTH = new Set(["liquid-temperature", "very-hot", "contactless"]);
/** What was found, less what is only meant where something else is named for the same. */
function meant(found: readonly Found[], text: string): Found[] {
  // Who counts visitors does not ask as well whether somebody is there.
  const counted = found.some((f) => f.weight === WEIGHT.named && ["count-people", "press"].includes(f.thing.id));
  // "Too hot" is said of what has a thermometer of its own.
  const warm = found.some((f) => OTHER_WARMTH.has(f.thing.id));
  return found.filter(
    (f) =>
      !(warm && f.thing.id === "temperature" && !/temperature|thermometer|climate/.test(text.slice(f.at, f.to))) &&
      !(counted && f.thing.id === "motion") &&
      !found.some(
        (o) => (o.weight > f.weight || (o.weight === f.weight && within(f, o))) && rivals(o.thing, f.thing, f.weight),
      ),
  );
}

/**
 * Reads what somebody wants in their own words: which things of the table it should sense, show, move and so on, in the order of
 * the text, what it should do without, and what the words say of where and how it lives. Needs no network and guesses nothing: what
 * no word of the table stands in comes back in `unread`, what boards can't or must not do in `beyond`.
 */
export function readIdea(typed: string): Reading {
  const asTyped = plain(typed);
  const first = sorted(findings(asTyped.text));
  const corrected = spelt(asTyped, first);
  const { text, place } = corrected ?? asTyped;
  const all = corrected ? sorted(findings(text)) : first;
  const words = (s: { at: number; to: number }) => typed.slice(place[s.at]!, place[s.to - 1]! + 1);
  const negated = (f: Found) => NOT_BEFORE.test(text.slice(Math.max(0, f.at - 30), f.at));
  const without = new Set(all.filter((f) => negated(f) && f.weight > WEIGHT.weak).map((f) => f.thing.id));
  const found = meant(
    all.filter((f) => !negated(f) && !without.has(f.thing.id)),
    text,
  );
  const wishes = new Map<string, Wish>();
  for (const f of found) {
    const known = wishes.get(f.thing.id);
    if (known) {
      known.places.push(place[f.at]!);
      continue;
    }
    const many = f.thing.many ? countOf(text, f.thing.many) : 1;
    wishes.set(f.thing.id, { thing: f.thing.id, by: words(f), places: [place[f.at]!], ...(many > 1 && { many }) });
  }
  const hints: Hints = {};
  const said: [number, number][] = [
    ...all.map((f) => [f.at, f.to] as [number, number]),
    ...[...text.matchAll(LEFT_OUT)].map((m) => [m.index, m.index + m[0].length] as [number, number]),
  ];
  for (const [key, re] of HINTS) {
    const m = re.exec(text);
    if (m) {
      hints[key] = true;
      if (wishes.size) said.push([m.index, m.index + m[0].length]);
    }
  }
  const beyond = BEYOND_RES.flatMap(([re, says]) => {
    const m = re.exec(text);
    return m && !NOT_BEFORE.test(text.slice(Math.max(0, m.index - 30), m.index))
      ? [{ by: words({ at: m.index, to: m.index + m[0].length }), says }]
      : [];
  });
  const unread = pieces(text)
    .filter((p) => !said.some(([a, b]) => a < p.at + p.text.length && b > p.at))
    .map((p) => words({ at: p.at, to: p.at + p.text.length }).trim())
    .filter((t) => t.split(/\s+/).length > 1);
  const slips = (corrected?.slips ?? [])
    .filter((s) => all.some((f) => beside(f, s)))
    .map((s) => ({ by: words(s), as: text.slice(s.at, s.to) }));
  const wished = [...wishes.values()];
  return { wishes: wished, without: [...without], hints, unread, beyond, slips, half: halfOf(wished, text) };
}
