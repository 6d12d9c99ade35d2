import type { OwnDraft } from "./schema";
import type { Read } from "./values";

export interface DraftProblem {
  /** `name`, `pins/2`, `supplies/main/VIH` … */
  field: string;
  message: string;
}

/** What every builder of a section of the part works with. */
export interface Build {
  draft: OwnDraft;
  /** The draft as the base part gave it: what is still the same is taken from the base as it is, not read again. */
  original: OwnDraft | null;
  problems: DraftProblem[];
  say(field: string, message: string): void;
}

/** A field that may be empty: undefined then, and undefined with the mistake noted when it can't be read. */
export function read<T>(b: Build, path: string, text: string, how: (t: string) => Read<T>): T | undefined {
  if (!text.trim()) return undefined;
  const r = how(text);
  if (r.ok) return r.value;
  b.say(path, r.message);
  return undefined;
}

/** Whether a row of a list says what the same row of the base part's draft said. */
const same = (a: object, b: object | undefined) => b !== undefined && JSON.stringify(a) === JSON.stringify(b);

/**
 * A list of the part from the rows of a draft: a row that still says what the base part's entry said is that entry; one that
 * was changed is made anew, over it; one that is new is made from nothing. `make` gives null, with the mistake noted, for a
 * row that can't be used.
 */
export function listOf<Row extends { from?: number | undefined }, Entry>(
  rows: readonly Row[],
  original: readonly Row[] | undefined,
  base: readonly Entry[] | undefined,
  make: (row: Row, old: Entry | undefined, i: number) => Entry | null,
): Entry[] {
  return rows.flatMap((row, i): Entry[] => {
    const old = row.from === undefined ? undefined : base?.[row.from];
    if (
      old &&
      same(
        row,
        original?.find((x) => x.from === row.from),
      )
    )
      return [old];
    const made = make(row, old, i);
    return made === null ? [] : [made];
  });
}
