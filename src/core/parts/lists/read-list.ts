import Papa from "papaparse";
import { countInWords } from "./names";

/** A line of somebody's parts list, columns already told apart. */
export interface ListLine {
  line: number;
  /** What stands there, for showing. */
  raw: string;
  /** The words that name the part, with its value. */
  text: string;
  quantity: number;
  refs: string[];
}
export type ListResult = { ok: true; lines: ListLine[]; columns: string[] } | { ok: false; message: string };

export const MAX_LIST_CHARS = 200_000;
export const MAX_LIST_LINES = 500;
const MOST = 999;

type Column = "quantity" | "name" | "value" | "ref" | "other";
const HEADINGS: [Column, RegExp][] = [
  ["quantity", /^(#|n|no\.?|qty\.?|quantity|count|amount|pieces|pcs|number|how many|menge|anzahl|stück|qté)$/i],
  ["ref", /^(refs?\.?|references?|designators?|position|label)$/i],
  ["value", /^(values?|wert|rating|colou?r|spec.*)$/i],
  [
    "name",
    /^(name|part( ?(name|number|no\.?))?|description|item|component|article|product|what|title|type|bezeichnung|teil)$/i,
  ],
];
const UNIT =
  /^(v|volts?|a|amps?|ma|w|watts?|k|m|r|[kM]?\s?(?:ω|Ω|ohms?)|(?:kilo?|mega?|k|m)\s?-?\s?ohms?|[pnuµμm]f|f|(?:micro|nano|pico)\s?-?farads?|mm|cm|hz|khz|mhz|%|pins?|bits?|inch(?:es)?|"|segments?|channels?|ch|ways?|wires? (?:cable|bus)|(?:x|×)?\s*AA\b(?!A)|cells?)(?![A-Za-z])/i;

const heading = (cell: string): Column => HEADINGS.find(([, re]) => re.test(cell.trim()))?.[0] ?? "other";

/** A count in front or behind: `3 LEDs`, `2x BME280`, `BME280 (2)`, `resistor × 10`. Not `5 V adapter` or `8x8 matrix`. */
export function takeQuantity(text: string): { quantity: number; rest: string } {
  const t = text.trim().replace(/^[-*•·–]\s+/, "");
  const words = countInWords(t);
  if (words && !UNIT.test(words.rest)) return words;
  // A holder of so many cells is one holder.
  if (/\b(?:\d|three|four)\s*(?:x|×)?\s*AA\b(?!A)|\bAA\b(?!A).*\(\d\)/i.test(t)) return { quantity: 1, rest: t };
  const front = /^(\d{1,3})\s*(?:(?:x|×|\*)\s*(?=\D)|(?:pcs?\.?|pieces?|st(?:k|ck|ück)?\.?)\s+|\s)(.+)$/i.exec(t);
  if (front && !UNIT.test(front[2]!.trim()) && Number(front[1]) > 0)
    return { quantity: Math.min(MOST, Number(front[1])), rest: front[2]!.trim() };
  const back =
    /^(.*\S)\s*(?:(?:\s[-–,:]?\s*|[-–,:]\s*)(?:x|×)\s*(\d{1,3})|×\s*(\d{1,3})|\((?:x|×)?\s*(\d{1,3})(?:\s*(?:x|×|pcs?\.?|pieces?))?\)|[-–,:]?\s+(\d{1,3})\s*(?:x|×|pcs?\.?|pieces?))$/i.exec(
      t,
    );
  if (back)
    return {
      quantity: Math.min(MOST, Math.max(1, Number(back[2] ?? back[3] ?? back[4] ?? back[5]))),
      rest: back[1]!.replace(/[\s,:–-]+$/, ""),
    };
  return { quantity: 1, rest: t };
}

function guessColumns(rows: string[][]): { columns: Column[]; hasHeading: boolean } {
  const width = Math.max(...rows.map((r) => r.length));
  const first = (rows[0] ?? []).map(heading);
  const named = first.filter((c) => c !== "other").length;
  if (named > 0 && rows.length > 1 && (named >= 2 || first.includes("name")))
    return { columns: Array.from({ length: width }, (_, i) => first[i] ?? "other"), hasHeading: true };
  const share = (i: number, test: (c: string) => boolean) =>
    rows.filter((r) => test((r[i] ?? "").trim())).length / rows.length;
  const columns = Array.from({ length: width }, (): Column => "other");
  const counts = columns.map((_, i) => share(i, (c) => /^\d{1,3}\s*(x|×|pcs?\.?)?$/i.test(c)));
  const q = counts.indexOf(Math.max(...counts));
  if (counts[q]! > 0.6) columns[q] = "quantity";
  const refs = columns.map((_, i) => share(i, (c) => /^[A-Z]{1,3}\d+([\s,;]+[A-Z]{1,3}\d+)*$/.test(c)));
  const rf = refs.indexOf(Math.max(...refs));
  if (refs[rf]! > 0.6 && columns[rf] === "other") columns[rf] = "ref";
  const length = columns.map((c, i) =>
    c === "other" ? rows.reduce((s, r) => s + (/[A-Za-z]/.test(r[i] ?? "") ? (r[i] ?? "").length : 0), 0) : -1,
  );
  columns[length.indexOf(Math.max(...length))] = "name";
  return { columns, hasHeading: false };
}

/**
 * Reads a parts list as people have them: CSV or tab-separated with or without headings, a table pasted from a page, or
 * plain lines. Refuses what is too long; never throws.
 */
export function readList(text: string): ListResult {
  if (text.length > MAX_LIST_CHARS)
    return { ok: false, message: `This list is longer than ${MAX_LIST_CHARS / 1000} thousand characters; split it.` };
  const clean = text.replace(/^\uFEFF/, "").replace(/\r\n?/g, "\n");
  const lines = clean.split("\n").filter((l) => l.trim());
  if (!lines.length) return { ok: false, message: "Nothing to read yet: paste a list, one part a line." };
  if (lines.length > MAX_LIST_LINES + 1)
    return { ok: false, message: `This list has ${lines.length} lines; up to ${MAX_LIST_LINES} are read at once.` };
  // A table pasted with bars: | qty | name |
  const bars = lines.filter((l) => l.split("|").length > 2).length > lines.length / 2;
  const source = bars
    ? lines
        .filter((l) => !/^[\s|:+-]+$/.test(l))
        .map((l) =>
          l
            .replace(/^\s*\||\|\s*$/g, "")
            .split("|")
            .map((c) => `"${c.trim().replaceAll('"', '""')}"`)
            .join(","),
        )
        .join("\n")
    : lines.join("\n");
  // One line with commas is somebody's sentence, unless a count stands in a cell of its own.
  const sentence = !bars && lines.length === 1 && !/^\s*\d+\s*,|,\s*\d+\s*$/.test(lines[0] ?? "");
  const delimiter = bars
    ? ","
    : (["\t", ";", ...(sentence ? [] : [","])].find(
        (d) => lines.filter((l) => l.includes(d)).length > lines.length * 0.6,
      ) ?? "");
  const rows = delimiter
    ? Papa.parse<string[]>(source, { delimiter, skipEmptyLines: "greedy" }).data
    : source.split("\n").map((l) => [l]);
  const { columns, hasHeading } = guessColumns(rows);
  const pick = (r: string[], c: Column) =>
    r
      .filter((_, i) => columns[i] === c)
      .map((x) => x.trim())
      .filter(Boolean);
  const out = rows.slice(hasHeading ? 1 : 0).flatMap((r, i): ListLine[] => {
    const raw = r
      .map((c) => c.trim())
      .filter(Boolean)
      .join(" · ");
    const named = [...pick(r, "name"), ...pick(r, "value")].join(" ") || pick(r, "other").join(" ");
    if (!named) return [];
    const count = /\d+/.exec(pick(r, "quantity")[0] ?? "")?.[0];
    const { quantity, rest } = takeQuantity(named);
    return [
      {
        line: i + (hasHeading ? 2 : 1),
        raw: raw.slice(0, 300),
        text: (count ? named : rest).slice(0, 200),
        quantity: count ? Math.min(MOST, Number(count)) : quantity,
        refs: pick(r, "ref")
          .join(" ")
          .split(/[\s,;]+/)
          .filter(Boolean)
          .slice(0, 50),
      },
    ];
  });
  return { ok: true, lines: out, columns: hasHeading ? rows[0]! : [] };
}
