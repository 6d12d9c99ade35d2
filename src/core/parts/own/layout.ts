import type { Part } from "../catalogue";
import { read, type Build } from "./build";
import { tidyLabel } from "./pins";
import type { OwnLayout } from "./roles";
import type { OwnDraft } from "./schema";

type Body = Part["body"];
type Print = NonNullable<Body["prints"]>[number];
type Board = NonNullable<Part["board"]>;

const SIDES = ["left", "right"] as const;
const HEADERS = { left: "L", right: "R" } as const;

/** Of a draft: how the pins of a part stand on it. */
export function layoutFrom(part: Part): Pick<OwnDraft, "layout" | "firstRow" | "rowPitch" | "secondRow"> {
  const { header, prints } = part.body;
  const shaped =
    header?.rows === 2 || part.board !== undefined || (prints?.length ?? 0) > 0 || header?.pins !== part.pins.length;
  return {
    layout: (shaped ? "kept" : "one") satisfies OwnLayout,
    firstRow: "",
    rowPitch: header?.rowPitch_mm === undefined ? "" : `${header.rowPitch_mm} mm`,
    secondRow: header?.secondRow ?? "down",
  };
}

/** Whether the pins are still those of the part that this one came from, in their order; labels may have changed. */
const inBaseOrder = (b: Build): boolean => {
  const base = b.draft.base?.pins;
  return (
    base !== undefined && base.length === b.draft.pins.length && b.draft.pins.every((p, i) => p.from === base[i]!.label)
  );
};

/** The prints of the part that it came from, by the labels that its pins have now. */
function keptPrints(b: Build): Print[] {
  const now = new Map(b.draft.pins.map((p) => [p.from, tidyLabel(p.label)]));
  return (b.draft.base?.body.prints ?? []).map((p) => ({
    ...p,
    rows: p.rows.map((row) => row.map((l) => now.get(l) ?? l)),
  }));
}

const millimetres = (text: string) => {
  const v = Number(text.replace(/\s*mm\s*$/i, "").replace(",", "."));
  return Number.isFinite(v) && v >= 2 && v <= 80
    ? { ok: true as const, value: v }
    : { ok: false as const, message: `"${text.trim()}" is no distance of two rows; write it like 15.24 mm` };
};

/** The pins of both rows, in the order in which each is read from the top; null, with the mistake noted, where they don't add up. */
function twoRows(b: Build, labels: readonly string[]): [string[], string[]] | null {
  const first = Number(b.draft.firstRow.trim());
  if (!Number.isInteger(first) || first < 1 || first >= labels.length) {
    b.say("firstRow", `how many of the ${labels.length} pins are in the first row? From 1 to ${labels.length - 1}`);
    return null;
  }
  const second = labels.slice(first);
  return [labels.slice(0, first), b.draft.secondRow === "up" ? second.reverse() : second];
}

/** Pins that stand in no header: sockets of a board. */
const outside = (p: Part["pins"][number]) => p.role === "cable";

export interface Layout {
  pins: Part["pins"];
  header: Pick<NonNullable<Body["header"]>, "pins" | "rows" | "rowPitch_mm" | "secondRow" | "pitch_mm">;
  prints?: Print[];
  /** Of a board: its headers. */
  headers?: Board["headers"];
  rowPitch_mm?: number;
}

/** How the pins of a draft stand on the part: rows for the drawings, the breadboard and the run sheet. */
export function buildLayout(b: Build, pins: Part["pins"]): Layout {
  const { draft } = b;
  const base = draft.base;
  const pitch_mm = base?.body.header?.pitch_mm ?? 2.54;
  const old = base?.body.header;
  const plain = { pins: Math.max(1, Math.min(old?.pins ?? pins.length, pins.length)), pitch_mm };
  if (draft.layout === "kept" && base) {
    if (inBaseOrder(b)) {
      const prints = keptPrints(b);
      return { pins, header: old ? { ...old } : plain, ...(prints.length && { prints }) };
    }
    if (old?.rows === 2 || base.board)
      b.say(
        "layout",
        "its pins are others, or in another order, than in the part it came from: say how they stand on it",
      );
    return { pins, header: plain };
  }
  const inRows = pins.filter((p) => !outside(p));
  if (draft.layout === "one" || draft.layout === "kept") {
    if (base?.board) b.say("layout", "a board has two rows");
    return { pins: pins.map(({ at: _at, ...p }) => p), header: { pins: Math.max(1, inRows.length), pitch_mm } };
  }
  const rows = twoRows(
    b,
    inRows.map((p) => p.label),
  );
  const apart = read(b, "rowPitch", draft.rowPitch, millimetres);
  const sides = draft.layout === "sides";
  if (sides && apart === undefined && !draft.rowPitch.trim())
    b.say("rowPitch", "how far are the rows apart, from hole to hole?");
  const header = {
    pins: Math.max(1, inRows.length),
    rows: 2 as const,
    pitch_mm,
    ...(sides && apart !== undefined && { rowPitch_mm: apart, secondRow: draft.secondRow }),
  };
  if (!rows) return { pins, header };
  if (base?.board) {
    const where = new Map(
      rows.flatMap((row, r) => row.map((l, i) => [l, { header: HEADERS[SIDES[r]!], index: i + 1 }] as const)),
    );
    const headers = rows.map((row, r) => ({
      id: HEADERS[SIDES[r]!],
      side: SIDES[r]!,
      count: row.length,
      says: `${SIDES[r]} header, ${row[0]} down to ${row.at(-1)}`,
    }));
    return {
      pins: pins.map(({ at: _at, ...p }) => ({ ...p, ...(where.has(p.label) && { at: where.get(p.label)! }) })),
      header,
      headers,
      ...(apart !== undefined && { rowPitch_mm: apart }),
    };
  }
  const print: Print = {
    id: "own",
    says: "as on this board",
    rows,
    edge: sides ? "sides" : "ends",
    certainty: "high",
    ...(sides && apart !== undefined && { rowPitch_mm: apart }),
  };
  return { pins: pins.map(({ at: _at, ...p }) => p), header, prints: [print] };
}
