import { driverOf } from "./drivers";
import type { Text } from "./devices/types";
import { givesOf } from "./rules/resolve";
import { isYesNo } from "./rules/sentence";
import type { DriverPart } from "./types";

/** What a display of letters shows beside a number that it is told: a title, then what the other parts say, page after page. */
export interface Page {
  p: DriverPart;
  /** What stands in its first row; nothing on small ones, and where a number stands there. */
  title: string | null;
  /** Rows for what the parts say: the first of them, and how many. */
  first: number;
  rows: number;
  pages: number;
  says: readonly DriverPart[];
}

/** How long a page stands, ms. */
export const PAGE_MS = 4000;
/** How often a row is written anew, ms: the whole of a small display within half a second. */
export const ROW_MS = 50;

/** Displays from so many rows on have a title and a blank row below it. */
const TALL = 4;

/** Something to read, not a contact that is mostly open. */
const isReading = (p: DriverPart) => givesOf(p).some((q) => !isYesNo(q));

/** What stands on a display: readings on as many pages as it takes; contacts where a row is left, or where there is nothing else. */
function chosen(all: readonly DriverPart[], rows: number): readonly DriverPart[] {
  const readings = all.filter(isReading);
  const contacts = all.filter((p) => !isReading(p));
  return readings.length ? [...readings, ...contacts.slice(0, Math.max(0, rows - readings.length))] : contacts;
}

function pageOf(p: DriverPart, { rows }: Text, all: readonly DriverPart[]): Page {
  const tall = rows >= TALL;
  const first = tall ? 2 : p.ruled ? 1 : 0;
  const says = chosen(all, rows - first);
  const free = Math.min(rows - first, Math.max(1, says.length));
  return {
    p,
    title: tall && !p.ruled ? p.label : null,
    first,
    rows: free,
    pages: Math.ceil(says.length / free),
    says,
  };
}

/** The displays of letters of a program. `says`: whether a part has something to say in its language. */
export const pagesOf = (parts: readonly DriverPart[], says: (p: DriverPart) => boolean): Page[] => {
  const all = parts.filter(says);
  return parts.flatMap((p) => {
    const text = driverOf(p)?.text?.(p);
    return text ? [pageOf(p, text, all)] : [];
  });
};
