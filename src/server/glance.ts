import type { Glance } from "../core/glance";
import * as rows from "../db/projects";
import { heavy } from "./heavy";
import type { Outcome } from "./outcome";
import { database, onReopened } from "./store";

type Stored = Glance & { version: number };

/** Computed once for each version of a project; so many are kept. */
const KEPT = 500;
const known = new Map<string, Stored>();
onReopened(() => known.clear());

/** How a project stands: verdict, station, shares that are wired and checked. Worked out in a thread, kept by version. */
export async function glance(id: string, gone?: AbortSignal): Promise<Outcome<Stored>> {
  const row = rows.getProject(database(), id);
  if (!row) return { status: 404, body: { message: "There is no such project." } };
  const key = `${id} ${row.version}`;
  const there = known.get(key);
  if (there) return { status: 200, body: there };
  const r = await heavy().run({ kind: "glance", document: row.document }, gone);
  if (!r.ok) return { status: 400, body: { message: `This project can't be read: ${r.message}` } };
  const made = { ...(r.value as Glance), version: row.version };
  const oldest = known.keys().next().value;
  if (known.size >= KEPT && oldest !== undefined) known.delete(oldest);
  known.set(key, made);
  return { status: 200, body: made };
}
