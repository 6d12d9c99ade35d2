import type { Db } from "./database";

export interface OwnPartRow {
  id: string;
  document: string;
  updated_at: string;
}

export function listOwnParts(db: Db): OwnPartRow[] {
  return db
    .prepare("SELECT id, document, updated_at FROM own_parts ORDER BY updated_at DESC, id")
    .all() as OwnPartRow[];
}

export function saveOwnPart(db: Db, id: string, document: string) {
  db.prepare(
    `INSERT INTO own_parts (id, document, updated_at) VALUES (?, ?, ?)
     ON CONFLICT (id) DO UPDATE SET document = excluded.document, updated_at = excluded.updated_at`,
  ).run(id, document, new Date().toISOString());
}

export function deleteOwnPart(db: Db, id: string): boolean {
  return db.prepare("DELETE FROM own_parts WHERE id = ?").run(id).changes > 0;
}

/** The definition of a part that some project carries with it, from the project changed last. */
export function carriedPart(db: Db, partId: string): string | undefined {
  const row = db
    .prepare(
      `SELECT e.value AS document
       FROM (SELECT * FROM projects WHERE json_valid(document)) p, json_each(p.document, '$.customParts') e
       WHERE json_extract(e.value, '$.id') = ? AND p.deleted_at IS NULL
       ORDER BY p.updated_at DESC LIMIT 1`,
    )
    .get(partId) as { document: string } | undefined;
  return row?.document;
}

/** Projects whose stored document names the part, newest first. */
export function projectsUsing(db: Db, partId: string): { id: string; title: string; refs: number }[] {
  return db
    .prepare(
      `SELECT p.id AS id, p.title AS title, count(*) AS refs
       FROM (SELECT * FROM projects WHERE json_valid(document)) p, json_each(p.document, '$.parts') e
       WHERE json_extract(e.value, '$.part') = ? AND p.deleted_at IS NULL
       GROUP BY p.id ORDER BY p.updated_at DESC, p.id LIMIT 50`,
    )
    .all(partId) as { id: string; title: string; refs: number }[];
}
