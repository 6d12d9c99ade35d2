import { logRows } from "../bench/station/log";
import type { Circuit } from "../circuit";
import { fingerprint } from "../project";
import { toCsv } from "./csv";

/** Every reading on record as a table, oldest first. */
export const benchLogCsv = (c: Circuit): string =>
  toCsv(
    ["at", "what", "reading", "as_it_should_be", "change", "plan"],
    [...logRows(c)]
      .reverse()
      .map((r) => [r.at, r.what, r.reading, r.ok ? "yes" : "no", r.change, fingerprint(c.project)]),
  );
