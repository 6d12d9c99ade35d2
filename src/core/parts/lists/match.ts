import { parseQuantity } from "../../quantity";
import type { PartSummary } from "../catalogue";
import type { PartSearch } from "../catalogue/search";
import { calledIds, inSigns } from "./names";
import type { ListLine } from "./read-list";

export interface Candidate {
  id: string;
  name: string;
  options: Record<string, string | number>;
  why: string;
}
/** sure: taken over as it is · unclear: the person chooses · unknown: nothing like it · not-planned: tools and wire. */
export type MatchStatus = "sure" | "unclear" | "unknown" | "not-planned";
export interface MatchedLine extends ListLine {
  status: MatchStatus;
  candidates: Candidate[];
  /** Loose values such as ten resistors go to the drawer, parts to the project. */
  to: "project" | "drawer" | "skip";
}

const NOT_PLANNED =
  /\b(bread ?boards?|(?:strip|perf|proto(?:type)?|matrix) ?boards?|pliers|(?:side )?cutters?|(?:wire )?strippers?|(?:alligator|crocodile) (?:clips?|leads?)|(?:cable|zip) ties?|screw ?drivers?|pin headers?|female headers?|jumper(s| ?wires?)?|hook-?up wires?|wires?|cables?|solder(ing)?|iron|screws?|nuts?|spacers?|standoffs?|tape|glue|box|case|enclosure|tools?|multimeter|heat ?shrink|tweezers|tinned)\b/i;
const RESISTOR =
  /\b(resistors?|widerst\w*|res\.?)\b|^\s*\d+([.,]\d+)?\s*(k|M|R)?\d*\s*(Ω|Ω|ohms?)\s*$|^\s*\d+([kKMR])\d*\s*$/i;
/** A value in ohms and nothing else: "10k ohm", "4.7k ohm 1%". */
const ONLY_OHMS = /^\s*\d+([.,]\d+)?\s*[kM]?\s*(Ω|Ω|ohms?)(\s+[\d./]+\s*(%|w|watts?))*\s*$/i;
const CAPACITOR = /\b(capacitors?|caps?|kondensator\w*|electrolytics?|elkos?)\b|\d\s*[pnuµμ]F\b/i;
const VALUE = /(\d+(?:[.,]\d+)?\s*[pnuµμmkKMR]?\d*)\s*(Ω|Ω|ohms?|F|R)?(?![A-Za-z0-9])/g;
const COLOURS = ["red", "green", "yellow", "blue", "white"];

const plain = (s: string) => s.toLowerCase().replace(/[^a-z0-9]/g, "");

/** The first thing in a text that reads as a value in the given unit: `220 ohm`, `4k7`, `100 nF`. */
function valueIn(text: string, farads: boolean): number | null {
  for (const m of text.matchAll(VALUE)) {
    const raw = m[1]!.replace(/\s+/g, "");
    const marked = Boolean(m[2]) || /[pnuµμkKMR]/.test(raw);
    const fits = farads ? /F/.test(m[2] ?? "") || /[pnuµμ]$/.test(raw) : !/F/.test(m[2] ?? "") && !/[pnuµμ]$/.test(raw);
    if (!fits || (!marked && text.trim() !== m[0].trim() && !RESISTOR.test(text))) continue;
    const q = parseQuantity(raw.replace(/^(\d+(?:[.,]\d+)?)R$/i, "$1"));
    if (q.ok && q.value > 0) return q.value;
  }
  return null;
}

const round = (v: number) => Number(v.toPrecision(6));

function looseValue(text: string): Candidate | null {
  if (CAPACITOR.test(text)) {
    const F = valueIn(text, true);
    if (!F) return null;
    const id = F >= 1e-6 || /electrolytic|elko/i.test(text) ? "discrete/electrolytic" : "discrete/capacitor";
    return { id, name: "", options: { capacitance_uF: round(F * 1e6) }, why: "its value" };
  }
  if (
    (RESISTOR.test(text) || ONLY_OHMS.test(text)) &&
    !/pot\b|pots\b|speaker|trim|photo|ldr|thermist|ntc|potentio|light|pull.?up module/i.test(text)
  ) {
    const ohm = valueIn(text, false);
    return ohm
      ? { id: "discrete/resistor", name: "", options: { resistance_ohm: round(ohm) }, why: "its value" }
      : null;
  }
  return null;
}

/** Options that a line tells: the number of lights, a potentiometer's track, an adapter's rating. */
function optionsFor(id: string, text: string): Record<string, string | number> {
  const lights =
    /(\d{1,4})\s*(?:leds?|pixels?|lights?)\b/i.exec(text) ?? /(?:leds?|pixels?|lights?)\D{0,3}(\d{1,4})\b/i.exec(text);
  if (/ws2812b-strip|apa102-strip/.test(id) && lights)
    return { pixels: Math.min(1000, Math.max(1, Number(lights[1]))) };
  if (id === "discrete/potentiometer") {
    const ohm = valueIn(`${text} resistor`, false);
    return ohm ? { resistance_ohm: round(ohm) } : {};
  }
  return {};
}

export interface ListMatcher {
  (lines: readonly ListLine[]): MatchedLine[];
}

/** Builds a matcher over summaries. Chip numbers decide first, then values, then the words that the catalogue knows. */
export function makeMatcher(summaries: readonly PartSummary[], search: PartSearch): ListMatcher {
  const byId = new Map(summaries.map((s) => [s.id, s]));
  const chips = new Map<string, Set<string>>();
  const learn = (word: string, id: string) => {
    const w = plain(word);
    if (w.length < 4 || !/\d/.test(w) || !/[a-z]/.test(w)) return;
    chips.set(w, (chips.get(w) ?? new Set()).add(id));
  };
  for (const s of summaries) {
    learn(s.id.split("/")[1]!, s.id);
    for (const w of s.name.split(/[\s,·]+/)) learn(w, s.id);
    for (const w of s.tags) learn(w, s.id);
  }
  const known = new Map<string, boolean>();
  const knows = (word: string) => {
    let is = known.get(word);
    if (is === undefined) known.set(word, (is = search(word).ids.length > 0));
    return is;
  };
  const candidate = (id: string, text: string, why: string): Candidate => ({
    id,
    name: byId.get(id)!.name,
    options: optionsFor(id, text),
    why,
  });

  function byChip(text: string): string[] {
    const words = text.split(/[\s,;()/·:]+/).map(plain);
    // "HC SR04" and "HC-SR04" are one name.
    const pairs = words.slice(1).map((w, i) => words[i]! + w);
    const hits = [...words, ...pairs].flatMap((w) => [...(chips.get(w) ?? [])].map((id) => ({ id, w })));
    if (!hits.length) {
      const near = words.filter((w) => w.length >= 5 && /\d/.test(w) && /[a-z]/.test(w));
      for (const w of near)
        for (const [chip, ids] of chips)
          if (w.startsWith(chip) || chip.startsWith(w)) for (const id of ids) hits.push({ id, w: chip });
    }
    const longest = Math.max(0, ...hits.map((h) => h.w.length));
    return [...new Set(hits.filter((h) => h.w.length === longest).map((h) => h.id))];
  }

  function matchOne(line: ListLine): MatchedLine {
    const text = inSigns(line.text);
    const done = (status: MatchStatus, candidates: Candidate[], to: MatchedLine["to"] = "project"): MatchedLine => ({
      ...line,
      status,
      candidates,
      to: status === "unknown" || status === "not-planned" ? "skip" : to,
    });
    const exact = byId.get(text.trim().toLowerCase());
    if (exact) return done("sure", [candidate(exact.id, text, "its id")]);
    const loose = looseValue(text);
    if (loose) return done("sure", [{ ...loose, name: byId.get(loose.id)?.name ?? loose.id }], "drawer");
    const chipIds = byChip(text);
    // Words help to tell variants of one chip apart: "SSD1306 SPI", "5V USB serial".
    const narrowed =
      chipIds.length > 1 ? search(text.split(/\s+/).filter(knows).join(" "), { only: chipIds }).ids : chipIds;
    const called = calledIds(text).filter((id) => byId.has(id));
    const family = (id: string) => id.split(/[/-]/)[1];
    // "LCD 16x2 I2C" names a kind of what the number names.
    if (called.length === 1 && chipIds.some((id) => family(id) === family(called[0]!)))
      return done("sure", [candidate(called[0]!, text, "its usual name")]);
    if (chipIds.length === 1) return done("sure", [candidate(chipIds[0]!, text, "its chip number")]);
    if (chipIds.length > 1) {
      const order = [...narrowed, ...chipIds.filter((id) => !narrowed.includes(id))].slice(0, 6);
      return done(
        narrowed.length === 1 ? "sure" : "unclear",
        order.map((id) => candidate(id, text, "its chip number")),
      );
    }
    if (called.length)
      return done(
        called.length === 1 ? "sure" : "unclear",
        called.map((id) => candidate(id, text, "its usual name")),
      );
    if (NOT_PLANNED.test(text) && !/(?<!bread|strip|perf|proto|prototype|matrix) (module|board|sensor)\b/i.test(text))
      return done("not-planned", []);
    const colour = COLOURS.find((c) => new RegExp(`\\b${c}\\b`, "i").test(text));
    if (/\bleds?\b/i.test(text) && colour && !/strip|ring|matrix|panel|display|digit/i.test(text))
      return done("sure", [candidate(`discrete/led-${colour}`, text, "its colour")]);
    const all = text.split(/[^\p{L}\p{N}.-]+/u).filter((w) => /\p{L}{3,}/u.test(w));
    const words = text
      .replace(/(\d)\s+V\b/g, "$1V")
      .replace(/\b\d+(\.\d+)?[kKM]\b/g, " ")
      .replace(/[^\p{L}\p{N}.,\s-]/gu, " ")
      .split(/\s+/)
      .filter((w) => w.length > 1 && knows(w));
    if (!words.length) return done("unknown", []);
    const found = search(words.join(" "));
    const list = found.ids.slice(0, 5).map((id) => candidate(id, text, `the words ${words.slice(0, 4).join(", ")}`));
    if (!list.length) return done("unknown", []);
    // Half of the words understood is not understood.
    const strange = all.filter((w) => !knows(w)).length;
    const valued = ["discrete/resistor", "discrete/capacitor", "discrete/electrolytic"].includes(list[0]!.id);
    const clear =
      !valued &&
      strange * 2 < Math.max(1, all.length) &&
      !found.partial &&
      (found.ids.length === 1 || found.scores[0]! > 1.8 * found.scores[1]!);
    return done(clear ? "sure" : "unclear", list);
  }
  return (lines) => lines.map(matchOne);
}
