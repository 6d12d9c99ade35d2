import Papa from "papaparse";
import type { Circuit } from "../../circuit";
import { findPin } from "../../parts/catalogue";
import { splitEnd } from "../../project";
import type { Observation } from "../reason/questions";
import { parseReading, type Unit } from "../steps/reading";

/** Readings from a table of somebody's own, with what could not be used. */
export interface ReadingsTable {
  observations: Observation[];
  problems: string[];
}

const MOST_ROWS = 2000;
const HEADS: Record<"from" | "to" | "reading", readonly string[]> = {
  from: ["from", "red", "a", "point", "plus"],
  to: ["to", "black", "b", "against", "minus"],
  reading: ["reading", "reads", "measured", "value", "shows"],
};

/** What kind of measurement a reading is, by how it is written. */
function unitOf(text: string): Unit | null {
  if (/v(olts?)?\s*$/i.test(text)) return "V";
  if (/(ω|Ω|ohms?|k|M)\s*$/i.test(text) && !/ok\s*$/i.test(text)) return "Ω";
  if (/beep|^ol$|^o\.l$|open|silent|no sound|^yes$|^no$/i.test(text.trim())) return "beep";
  return null;
}

/**
 * Reads a table with the columns `from`, `to` and `reading` (`3.28 V`, `330 Ω`, `beep`, `OL`). What can't be used is told by
 * its line; the rest counts.
 */
export function readReadings(c: Circuit, csv: string): ReadingsTable {
  const parsed = Papa.parse<string[]>(csv.replace(/^\ufeff/, "").trim(), { skipEmptyLines: true });
  const [head = [], ...rows] = parsed.data;
  const column = (which: keyof typeof HEADS) => head.findIndex((h) => HEADS[which].includes(h.trim().toLowerCase()));
  const [from, to, reading] = [column("from"), column("to"), column("reading")];
  if (from < 0 || to < 0 || reading < 0)
    return { observations: [], problems: ["line 1: columns named from, to and reading are needed"] };
  const problems: string[] = [];
  const observations: Observation[] = [];
  if (rows.length > MOST_ROWS) problems.push(`only the first ${MOST_ROWS} rows are read`);
  rows.slice(0, MOST_ROWS).forEach((row, i) => {
    const line = `line ${i + 2}`;
    const text = (row[reading] ?? "").trim();
    if (!text) return;
    const ends = [row[from] ?? "", row[to] ?? ""].map((t) => {
      const end = splitEnd(t.trim());
      const part = c.netlist.instance(end.ref)?.part;
      const pin = part && findPin(part, end.pin);
      return pin ? `${end.ref}.${pin.label}` : null;
    });
    const bad = ends.findIndex((e) => e === null);
    if (bad >= 0) {
      problems.push(
        `${line}: "${(row[bad ? to : from] ?? "").slice(0, 30)}" is no pin of this plan; write it like M1.SDA`,
      );
      return;
    }
    const [a, b] = ends as [string, string];
    const unit = unitOf(text);
    const r = unit && parseReading(text, unit);
    if (!unit || !r || !r.ok) {
      problems.push(`${line}: "${text.slice(0, 30)}" is not a reading; write 3.28 V, 330 Ω, beep or OL`);
      return;
    }
    observations.push({ q: { kind: unit === "V" ? "volt" : unit === "Ω" ? "ohm" : "beep", a, b }, seen: r.value });
  });
  return { observations, problems };
}
