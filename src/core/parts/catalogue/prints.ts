import { findPin } from "./catalogue";
import { partKind } from "./kind";
import { optionValues, type OptionValues } from "./options";
import type { ChosenPrint, Print } from "./print-schema";
import type { Part, Pin } from "./schema";

/** A hole of a header: what is printed there, and which pin that is; null where nothing of the plan is. */
export interface PrintHole {
  printed: string;
  pin: string | null;
}

/** A part's header as the plan takes it. */
export interface Reading {
  rows: PrintHole[][];
  edge: Print["edge"];
  rowPitch_mm?: number;
  certainty: Print["certainty"] | "yours";
  /** A person has looked, or nobody needs to. */
  confirmed: boolean;
  /** Known prints have supply or ground at other places, or nobody knows where: a wrong guess reverses the supply. */
  doubtful: boolean;
  says: string;
}

/** A row that prints GND at two places names it once: the second is `GND.2` in the plan. */
const shown = (label: string) => label.replace(/\.\d+$/, "");

/** The label of a hole that leads nowhere. A "-" or "N" may well be ground: those are asked for. */
const OPEN = "NC";

function holeOf(part: Part, label: string, names: Readonly<Record<string, string | null>> = {}): PrintHole {
  const own = Object.hasOwn(names, label) ? names[label]! : undefined;
  if (own === null) return { printed: label, pin: null };
  const pin = findPin(part, own ?? label);
  return { printed: shown(label), pin: pin?.label ?? null };
}

export const printsOf = (part: Part): readonly Print[] => part.body.prints ?? [];

/** Which holes have supply and ground: what must not be guessed. The edge counts, a header turned round is another one. */
const powerAt = (part: Part, p: Print): string =>
  [
    p.edge === "top",
    ...p.rows.flatMap((row, r) =>
      row.flatMap((l, k) => {
        const pin = findPin(part, l);
        const powered = pin?.role === "ground" || pin?.role.startsWith("supply");
        return powered ? [`${r} ${k} ${pin!.role === "ground" ? (pin!.domain ?? "gnd") : pin!.supply}`] : [];
      }),
    ),
  ].join("|");

const BY_LABEL = new Set(["pads", "wires", "screw"]);

const isGuess = (p: Print) => p.certainty === "assumed" || p.certainty === "low";

/**
 * Whether a wrong guess at the header could swap supply and ground: its prints differ there, or the commonest is only
 * assumed. A part with one sure print is never in doubt.
 */
function inDoubt(part: Part): boolean {
  const [first, ...others] = printsOf(part);
  // A wire that is soldered or screwed on goes where its label is: nobody counts there.
  if (!first || BY_LABEL.has(part.body.header?.kind ?? "wires")) return false;
  const powered = part.pins.some((p) => p.role.startsWith("supply") || p.role === "ground");
  return powered && (isGuess(first) || others.some((p) => powerAt(part, p) !== powerAt(part, first)));
}

/** Whether a person is asked which print theirs has: there are several, or the only one is not sure. */
export const asksPrint = (part: Part): boolean => {
  const list = printsOf(part);
  return list.length > 1 || (list[0] !== undefined && list[0].certainty !== "high");
};

/** Pins of a part without known prints, in the order of its definition. */
function plain(part: Part): Reading {
  const holes = part.pins.filter((p) => p.role !== "cable").map((p) => ({ printed: shown(p.label), pin: p.label }));
  const { header } = part.body;
  const half = holes.length / 2;
  const two = header?.rows === 2 && header.rowPitch_mm !== undefined && Number.isInteger(half);
  const second = holes.slice(half);
  return {
    rows: two ? [holes.slice(0, half), header.secondRow === "up" ? second.reverse() : second] : [holes],
    edge: two ? "sides" : /top edge|on the back/.test(part.body.orientation ?? "") ? "top" : "bottom",
    ...(two && { rowPitch_mm: header.rowPitch_mm! }),
    certainty: "yours",
    confirmed: true,
    doubtful: false,
    says: "",
  };
}

/** Where a header of one row usually is when the print is held upright. */
export const usualEdge = (part: Part): "bottom" | "top" => (printsOf(part)[0]?.edge === "top" ? "top" : "bottom");

/** The commonest print that goes with the choices that were made: a board with a regulator has that board's header. */
function usual(part: Part, values: OptionValues): Print | undefined {
  const now = optionValues(part, values);
  const fits = (p: Print) =>
    Object.entries(p.when ?? {}).every(([k, v]) => String(now[k]).toLowerCase() === v.toLowerCase());
  return printsOf(part).find(fits) ?? printsOf(part)[0];
}

/**
 * The header of a part as a project has it: the print that was confirmed, or the commonest that goes with the chosen
 * options until somebody looks.
 */
export function readingOf(part: Part, chosen?: ChosenPrint, values: OptionValues = {}): Reading {
  const list = printsOf(part);
  if (chosen && !("id" in chosen))
    return {
      rows: chosen.rows.map((row) => row.map((l) => holeOf(part, l, chosen.names))),
      edge: chosen.rows.length === 1 ? (chosen.edge ?? usualEdge(part)) : chosen.rowPitch_mm ? "sides" : "ends",
      ...(chosen.rowPitch_mm !== undefined && { rowPitch_mm: chosen.rowPitch_mm }),
      certainty: "yours",
      confirmed: true,
      doubtful: false,
      says: "your own order",
    };
  const print = list.find((p) => p.id === chosen?.id) ?? usual(part, values);
  if (!print) return plain(part);
  const confirmed = print.id === chosen?.id || !asksPrint(part);
  return {
    rows: print.rows.map((row) => row.map((l) => holeOf(part, l))),
    edge: print.edge,
    ...(print.rowPitch_mm !== undefined && { rowPitch_mm: print.rowPitch_mm }),
    certainty: print.certainty,
    confirmed,
    doubtful: !confirmed && inDoubt(part),
    says: print.says,
  };
}

/**
 * Where each pin of a header comes to lie when the part or its plug is put on the wrong way round, by half a turn: the
 * first hole is where the last should be, in two rows on the other side. null: a hole that leads nowhere.
 */
export function turnedRound({ rows }: Pick<Reading, "rows">): Map<string, string | null> {
  const holes = rows.flat();
  return new Map(holes.flatMap((h, k) => (h.pin ? [[h.pin, holes[holes.length - 1 - k]!.pin]] : [])));
}

/** Pins that some print shows: those whose place depends on it. Screws and sockets elsewhere on the board are not. */
export const printedPins = (part: Part): Set<string> =>
  new Set(printsOf(part).flatMap((p) => p.rows.flat().flatMap((l) => findPin(part, l)?.label ?? [])));

/** Pins that other boards of this kind have and this one has not. */
export function absentPins(part: Part, chosen?: ChosenPrint, values: OptionValues = {}): string[] {
  if (!printsOf(part).length) return [];
  const there = new Set(
    readingOf(part, chosen, values)
      .rows.flat()
      .flatMap((h) => h.pin ?? []),
  );
  return [...printedPins(part)].filter((l) => !there.has(l));
}

/** Nothing is planned at a pin that is not there; a wire that somebody laid stays, and is told. */
function spared(p: Pin): Pin {
  const { hook: _none, ...rest } = p;
  return { ...rest, optional: true, ...(p.need && { need: { ...p.need, optional: true } }) };
}

const cache = new WeakMap<Part, Map<string, Part>>();

/** The definition for a print: pins that this print lacks ask for nothing. The part itself is never changed. */
export function withPrint(part: Part, chosen?: ChosenPrint, values: OptionValues = {}): Part {
  if (!printsOf(part).length) return part;
  const key = JSON.stringify(chosen ?? usual(part, values)?.id);
  const known = cache.get(part) ?? new Map<string, Part>();
  cache.set(part, known);
  let out = known.get(key);
  if (!out) {
    if (known.size > 100) known.clear();
    const absent = new Set(absentPins(part, chosen, values));
    out = absent.size ? { ...part, pins: part.pins.map((p) => (absent.has(p.label) ? spared(p) : p)) } : part;
    known.set(key, out);
  }
  return out;
}

/** Pins without which the part is not itself: a header that lacks one is another part's. */
const isNeeded = (p: Pin) =>
  !p.optional && (p.role === "ground" || p.role.startsWith("supply") || (p.need !== undefined && !p.need.optional));

/** Labels of an own order that the definition does not know: a person says which pins they are. */
export const unknownLabels = (part: Part, chosen: ChosenPrint): string[] =>
  "id" in chosen ? [] : [...new Set(chosen.rows.flat().filter((l) => l !== OPEN && !findPin(part, l)))];

/** What is wrong with a print that a person gives: unknown names, pins that stand there twice or are missing. */
export function printProblems(part: Part, chosen: ChosenPrint): string[] {
  const list = printsOf(part);
  if ("id" in chosen)
    return list.some((p) => p.id === chosen.id)
      ? []
      : [
          list.length
            ? `${part.id} has no print "${chosen.id}"; it has ${list.map((p) => p.id).join(", ")}, or give its rows`
            : `${part.id} has no known prints; leave "print" out`,
        ];
  if (partKind(part.id) === "board" || partKind(part.id) === "chip")
    return [`the pins of ${part.id} are where its data say; leave "print" out`];
  const out: string[] = [];
  if (chosen.edge && chosen.rows.length > 1) out.push(`"edge" is for a header of one row; leave it out`);
  const names = chosen.names ?? {};
  for (const [label, pin] of Object.entries(names))
    if (pin !== null && !findPin(part, pin)) out.push(`"${label}" is said to be "${pin}", which ${part.id} has not`);
  const asked = new Set(unknownLabels(part, chosen).filter((l) => names[l] === undefined));
  const seen = new Map<string, string>();
  for (const label of chosen.rows.flat()) {
    const { pin } = holeOf(part, label, names);
    if (pin === null) {
      if (asked.has(label))
        out.push(`"${label}" is no pin that ${part.id} is known to have: say which pin it is, or that it stays open`);
    } else if (seen.has(pin)) out.push(`"${label}" and "${seen.get(pin)}" would both be ${pin}`);
    else seen.set(pin, label);
  }
  const shownSomewhere = printedPins(part);
  for (const p of part.pins)
    if (isNeeded(p) && !seen.has(p.label) && (!list.length || shownSomewhere.has(p.label)) && !joined(part, p, seen))
      out.push(`${p.label} is missing: it can't do without`);
  return out.slice(0, 10);
}

/** A second ground, or a second pin of a supply, is one with the first inside the part. */
const joined = (part: Part, p: Pin, seen: ReadonlyMap<string, string>): boolean =>
  part.pins.some(
    (q) =>
      q !== p &&
      q.role === p.role &&
      seen.has(q.label) &&
      (p.role === "ground"
        ? (q.domain ?? "gnd") === (p.domain ?? "gnd")
        : p.role.startsWith("supply") && q.supply === p.supply),
  );

/** A known print in one line, as a person reads it on the board. */
export const printText = (p: Print): string => p.rows.map((row) => row.map(shown).join(" ")).join(" | ");

/** A header in one line: `GND VCC SCL SDA`, two rows apart by a bar. */
export const printLine = (r: Pick<Reading, "rows">): string =>
  r.rows.map((row) => row.map((h) => h.printed).join(" ")).join(" | ");
