import { glanceAt, type Glance } from "../core/glance";
import { circuitOf } from "../core/circuit";
import { shippedCatalogue } from "../core/parts/catalogue/shipped";
import { loadProject } from "../core/project";
import * as rows from "../db/projects";
import type { Outcome } from "./outcome";
import { database, onReopened } from "./store";

type Stored = Glance & { version: number };

/** Computed once for each version of a project; so many are kept. */
const KEPT = 500;
const known = new Map<string, Stored>();
onReopened(() => known.clear());

/** How a project stands: verdict, station, shares that are wired and checked. Kept by version. */
export function glance(id: string): Outcome<Stored> {
  const row = rows.getProject(database(), id);
  if (!row) return { status: 404, body: { message: "There is no such project." } };
  const key = `${id} ${row.version}`;
  const there = known.get(key);
  if (there) return { status: 200, body: there };
  const read = loadProject(JSON.parse(row.document), shippedCatalogue());
  if (!read.ok) return { status: 400, body: { message: "This project can't be read.", problems: read.problems } };
  const made = { ...glanceAt(circuitOf(read.project, shippedCatalogue())), version: row.version };
  const oldest = known.keys().next().value;
  if (known.size >= KEPT && oldest !== undefined) known.delete(oldest);
  known.set(key, made);
  return { status: 200, body: made };
}
