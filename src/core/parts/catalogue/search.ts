import MiniSearch from "minisearch";
import { partKind } from "./kind";
import type { PartSummary } from "./summary";

/** Narrowing by what a part is, does, speaks, runs from and needs. Values within one facet are alternatives. */
export interface Facets {
  kind?: string[];
  group?: string[];
  talks?: string[];
  volts?: string[];
  solder?: string[];
  certainty?: string[];
  /** Only parts from this list, such as what the person owns. */
  only?: string[];
}
export type FacetName = "kind" | "group" | "talks" | "volts" | "solder" | "certainty";
export const FACETS: readonly FacetName[] = ["group", "talks", "volts", "kind", "solder", "certainty"];

export interface SearchResult {
  ids: string[];
  /** How well each fits; empty for an empty query. */
  scores: number[];
  /** True when no part has all the words, and those with some of them are given. */
  partial: boolean;
  /** For each facet, how many parts each value would leave, the other facets as they are. */
  counts: Record<FacetName, [value: string, count: number][]>;
}

/** Words that people use for the same thing; each finds the others. */
const SAME: string[][] = [
  ["analog", "analogue", "adc"],
  ["colour", "color"],
  ["light", "lamp"],
  ["one-wire", "onewire", "1-wire"],
  ["accelerometer", "acceleration"],
  ["serial", "uart"],
  ["screen", "display"],
  ["thermometer", "temperature"],
  ["barometer", "pressure"],
  ["hygrometer", "humidity"],
  ["compass", "magnetometer"],
  ["pot", "potentiometer"],
  ["pin", "pins"],
  ["ultrasonic", "sonar"],
];
const SYNONYM = new Map(SAME.flatMap((set) => set.map((w) => [w, set[0]!] as const)));
const VOLT = /^(\d{1,2})(?:[.,v](\d))?v?(?:olts?)?$/;
const VOLTS = new Set(["1.8", "2.5", "3", "3.3", "5", "6", "9", "12", "24"]);

/** `3.3`, `3V3`, `3,3V` and `3.3 volt` are one word; so are synonyms. */
export function searchTerm(word: string): string {
  const w = word.toLowerCase();
  const m = VOLT.exec(w);
  if (m) {
    const v = m[2] && m[2] !== "0" ? `${m[1]}.${m[2]}` : m[1]!;
    if (VOLTS.has(v)) return `${v}v`;
  }
  return SYNONYM.get(w) ?? w;
}

const SPLIT = /[\s·,;:()/]+|(?<!\d)\.|\.(?!\d)/;
const words = (text: string): string[] =>
  text.split(SPLIT).flatMap((w) => {
    if (!w) return [];
    const parts = w.includes("-") ? [w, ...w.split("-")] : [w];
    // A chip is also found by its number without the letters in front: 2812, 595.
    const m = /^(?:\d{0,2}[A-Za-z]{2,})(\d{3,}\w*)$/.exec(w);
    return m ? [...parts, m[1]!] : parts;
  });

const LIMIT = 100;
const RANK: Record<string, number> = { board: 0, chip: 1, module: 2, discrete: 3, supply: 4, connector: 5 };

const docOf = (s: PartSummary) => ({
  id: s.id,
  slug: s.id.split("/")[1]!,
  name: s.name,
  does: s.does,
  tags: [...s.tags, ...s.talks, ...s.volts, ...s.measures, s.kind, s.group].join(" "),
});

const valuesOf = (s: PartSummary, f: FacetName): readonly string[] => {
  const v = s[f];
  return Array.isArray(v) ? v : [v as string];
};

const passes = (s: PartSummary, facets: Facets, except?: FacetName) =>
  (!facets.only || facets.only.includes(s.id)) &&
  FACETS.every((f) => {
    const wanted = facets[f];
    return f === except || !wanted?.length || valuesOf(s, f).some((v) => wanted.includes(v));
  });

export interface PartSearch {
  (query: string, facets?: Facets): SearchResult;
}

/**
 * A search over id, name, purpose, buses and voltages: "temperature i2c 3.3". All words must be found; when no part has
 * them all, parts with most of them come. An empty query lists everything in catalogue order.
 */
export function makeSearch(summaries: readonly PartSummary[]): PartSearch {
  const index = new MiniSearch({
    fields: ["slug", "name", "does", "tags"],
    tokenize: words,
    processTerm: searchTerm,
    searchOptions: {
      tokenize: (q) => q.split(SPLIT).filter(Boolean),
      prefix: (t) => t.length > 1,
      fuzzy: (t) => (t.length > 4 && !/\d/.test(t) ? 0.2 : 0),
      boost: { slug: 3, name: 3, does: 2 },
    },
  });
  index.addAll(summaries.map(docOf));
  const byId = new Map(summaries.map((s) => [s.id, s]));
  const place = new Map(summaries.map((s, i) => [s.id, i]));
  return (query, facets = {}) => {
    // "3.3 V" is one word.
    const text = query
      .slice(0, LIMIT)
      .replace(/(\d)\s+(v|volts?)\b/gi, "$1$2")
      .trim();
    let hits: string[];
    let partial = false;
    const scores = new Map<string, number>();
    if (!text) hits = summaries.map((s) => s.id);
    else {
      let found = index.search(text, { combineWith: "AND" });
      if (!found.length) {
        partial = true;
        found = index.search(text, { combineWith: "OR" }).slice(0, 40);
      }
      for (const r of found) scores.set(String(r.id), r.score);
      const bare = text.toLowerCase();
      const exact = (id: string) => (id === bare || id.split("/")[1] === bare ? 1 : 0);
      hits = found
        .map((r) => ({ id: String(r.id), score: r.score }))
        .sort(
          (a, b) =>
            exact(b.id) - exact(a.id) ||
            b.score - a.score ||
            RANK[partKind(a.id)]! - RANK[partKind(b.id)]! ||
            place.get(a.id)! - place.get(b.id)!,
        )
        .map((r) => r.id);
    }
    const all = hits.map((id) => byId.get(id)!);
    const counts = Object.fromEntries(
      FACETS.map((f) => {
        const n = new Map<string, number>();
        for (const s of all) if (passes(s, facets, f)) for (const v of valuesOf(s, f)) n.set(v, (n.get(v) ?? 0) + 1);
        return [f, [...n].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))];
      }),
    ) as SearchResult["counts"];
    const ids = all.filter((s) => passes(s, facets)).map((s) => s.id);
    return { ids, scores: text ? ids.map((id) => scores.get(id)!) : [], partial, counts };
  };
}
