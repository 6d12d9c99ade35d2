import { Changes, MOST_CHANGES, MOST_CHANNELS, type CaptureReader } from "./types";

const UNITS: Record<string, number> = { s: 1, sec: 1, seconds: 1, ms: 1e-3, us: 1e-6, µs: 1e-6, ns: 1e-9 };
const MOST_LINE = 4096;
/** Analogue columns are levels from here on, volts. */
const HIGH_V = 1.5;

/** Cells of a line; what is quoted loses its quotes. Numbers and names of lines hold no separators. */
const cells = (line: string, by: string) => line.split(by).map((c) => c.trim().replace(/^"(.*)"$/, "$1"));

/**
 * Reads a logic analyser's table as it comes: a column of times, then one column a line, a row a change or a sample. The
 * time's unit stands in its heading (`Time [s]`, `time (us)`); seconds when it does not.
 */
export function csvReader(): CaptureReader {
  let rest = "";
  let by = "";
  let head: string[] | null = null;
  let time = -1;
  let unit = 1;
  let lines: { col: number; changes: Changes }[] = [];
  let row = 0;
  let start: number | null = null;
  let last = 0;
  let kept = 0;
  let cut = false;
  let bad = 0;
  const begin = (line: string): string | null => {
    by = [";", "\t", ","].find((d) => line.includes(d)) ?? ",";
    head = cells(line, by);
    time = head.findIndex((h) => /^time\b|^t\b|^seconds/i.test(h));
    if (time < 0) return "its first row names no column Time";
    const u = /[[(]\s*(\w+|µs)\s*[\])]/.exec(head[time]!)?.[1]?.toLowerCase() ?? "s";
    unit = UNITS[u] ?? NaN;
    if (!Number.isFinite(unit)) return `the unit "${u}" of its times is none of s, ms, us, ns`;
    lines = head.flatMap((h, col) => (col !== time && h ? [{ col, changes: new Changes(h.slice(0, 80)) }] : []));
    if (!lines.length) return "it has no columns beside its times";
    lines = lines.slice(0, MOST_CHANNELS);
    return null;
  };
  const take = (line: string): string | null => {
    if (!line.trim() || line.startsWith("#")) return null;
    row++;
    if (!head) return begin(line);
    const c = cells(line, by);
    const t = Number((c[time] ?? "").replace(by === ";" ? "," : "\0", "."));
    if (!Number.isFinite(t) || c[time] === "") {
      if (++bad > 20) return `row ${row}: "${(c[time] ?? "").slice(0, 20)}" is no time`;
      return null;
    }
    start ??= t;
    last = Math.max(last, t);
    for (const l of lines) {
      const v = Number(c[l.col]);
      if (c[l.col] === "" || !Number.isFinite(v)) continue;
      if (kept >= MOST_CHANGES) cut = true;
      else if (l.changes.put(t * unit, v === 1 || v >= HIGH_V ? 1 : 0)) kept++;
    }
    return null;
  };
  return {
    push(text) {
      const all = (rest + text).split(/\r\n|\n|\r/);
      rest = all.pop() ?? "";
      if (rest.length > MOST_LINE) return "it is no table: a row in it never ends";
      for (const line of all) {
        const why = take(line);
        if (why) return why;
      }
      return null;
    },
    end() {
      const why = take(rest);
      if (why) return { ok: false, why };
      if (start === null) return { ok: false, why: "it has no rows with times" };
      const from = start * unit;
      return {
        ok: true,
        capture: {
          channels: lines.map((l) => l.changes.channel(from)),
          span: last * unit - from,
          says: [
            ...(bad ? [`${bad} rows without a time are left out.`] : []),
            ...(cut ? [`Only the first ${MOST_CHANGES.toLocaleString("en")} changes are read.`] : []),
          ],
        },
      };
    },
  };
}
