import { clockOf, givesOf } from "../rules/resolve";
import { driverOf } from "../drivers";
import type { Quantity } from "../devices/types";
import type { DriverPart } from "../types";

/** What a line of a log says: the seconds since the program began, the time of a clock where there is one, and every reading. */
export interface Columns {
  clock: DriverPart | null;
  readings: readonly { p: DriverPart; q: Quantity }[];
  /** The first line of the file. */
  head: string;
}

/** More than this fits into no line, and no table that a person looks at. */
const MOST = 16;
/** A cell without what a table would read as something else. */
const cell = (text: string) =>
  text
    .replace(/[",;\r\n]/g, " ")
    .replace(/^[=+\-@\t]+/, "")
    .trim()
    .slice(0, 24);

export function columnsOf(parts: readonly DriverPart[]): Columns {
  const clock = parts.find((p) => clockOf(p)) ?? null;
  const readings = parts
    .filter((p) => p !== clock && !driverOf(p)?.logs?.(p))
    .flatMap((p) => givesOf(p).map((q) => ({ p, q })))
    .slice(0, MOST);
  const named = readings.map(({ p, q }) =>
    cell(`${p.label} ${q.word || q.name.split("_")[0]!}${q.unit ? ` ${q.unit}` : ""}`),
  );
  return { clock, readings, head: ["s", ...(clock ? ["time"] : []), ...named].join(",") };
}
