import type { Db } from "./database";

export interface ProjectRow {
  id: string;
  title: string;
  document: string;
  version: number;
  created_at: string;
  updated_at: string;
}
export type ProjectSummary = Omit<ProjectRow, "document" | "created_at">;
export interface RevisionRow {
  version: number;
  summary: string;
  at: string;
  /** Somebody wired after this version, or saved its plan: a bench may look like it. */
  kept: "wired" | "saved" | null;
  /** What the person called the plan that was saved with it. */
  name: string | null;
}

const KEPT_REVISIONS = 200;

export function listProjects(db: Db): ProjectSummary[] {
  return db
    .prepare("SELECT id, title, version, updated_at FROM projects ORDER BY updated_at DESC, id")
    .all() as ProjectSummary[];
}

export function getProject(db: Db, id: string): ProjectRow | undefined {
  return db.prepare("SELECT * FROM projects WHERE id = ?").get(id) as ProjectRow | undefined;
}

function keepRevision(db: Db, id: string, version: number, document: string, summary: string, at: string) {
  db.prepare("INSERT INTO revisions (project_id, version, document, summary, at) VALUES (?, ?, ?, ?, ?)").run(
    id,
    version,
    document,
    summary,
    at,
  );
  db.prepare("DELETE FROM revisions WHERE project_id = ? AND version <= ?").run(id, version - KEPT_REVISIONS);
}

/** A tick or a reading is a mark on the version that it was made on, no version of its own. */
function markRevision(db: Db, id: string, version: number, document: string): boolean {
  return (
    db
      .prepare("UPDATE revisions SET version = ?, document = ? WHERE project_id = ? AND version = ?")
      .run(version, document, id, version - 1).changes > 0
  );
}

export function insertProject(db: Db, id: string, title: string, document: string, summary: string): ProjectRow {
  const at = new Date().toISOString();
  db.transaction(() => {
    db.prepare(
      "INSERT INTO projects (id, title, document, version, created_at, updated_at) VALUES (?, ?, ?, 1, ?, ?)",
    ).run(id, title, document, at, at);
    keepRevision(db, id, 1, document, summary, at);
  })();
  return getProject(db, id)!;
}

/**
 * Saves when `base` is the stored version; otherwise nothing is written and the stored row comes back as stale. `isMark` says
 * of the document before whether only marks have changed since.
 */
export function saveProject(
  db: Db,
  id: string,
  base: number,
  title: string,
  document: string,
  summary: string,
  isMark: (before: string) => boolean = () => false,
): { ok: true; row: ProjectRow } | { ok: false; row: ProjectRow | undefined } {
  return db
    .transaction(() => {
      const now = getProject(db, id);
      if (!now || now.version !== base) return { ok: false as const, row: now };
      const at = new Date().toISOString();
      db.prepare("UPDATE projects SET title = ?, document = ?, version = ?, updated_at = ? WHERE id = ?").run(
        title,
        document,
        base + 1,
        at,
        id,
      );
      if (!isMark(now.document) || !markRevision(db, id, base + 1, document))
        keepRevision(db, id, base + 1, document, summary, at);
      return { ok: true as const, row: getProject(db, id)! };
    })
    .immediate();
}

export function deleteProject(db: Db, id: string): boolean {
  return db.prepare("DELETE FROM projects WHERE id = ?").run(id).changes > 0;
}

export function listRevisions(db: Db, id: string): RevisionRow[] {
  const list = db
    .prepare(
      `SELECT version, summary, at, json_array_length(document, '$.bench') AS marks,
        json_extract(document, '$.savedPlan.at') AS saved,
        json_extract(document, '$.savedPlan.name') AS name
      FROM revisions WHERE project_id = ? ORDER BY version DESC`,
    )
    .all(id) as {
    version: number;
    summary: string;
    at: string;
    marks: number | null;
    saved: string | null;
    name: string | null;
  }[];
  return list.map(({ marks, saved, name, ...row }, i) => {
    // Marks are carried on from version to version: those that came here were made on this one.
    const before = list[i + 1];
    const kept = (marks ?? 0) > (before?.marks ?? 0) ? "wired" : saved && saved !== before?.saved ? "saved" : null;
    return { ...row, kept, name: kept === "saved" ? name : null };
  });
}

export function getRevision(db: Db, id: string, version: number): string | undefined {
  const row = db.prepare("SELECT document FROM revisions WHERE project_id = ? AND version = ?").get(id, version) as
    { document: string } | undefined;
  return row?.document;
}

export function getSetting(db: Db, key: string): string | undefined {
  return (db.prepare("SELECT value FROM settings WHERE key = ?").get(key) as { value: string } | undefined)?.value;
}
export function setSetting(db: Db, key: string, value: string) {
  db.prepare(
    "INSERT INTO settings (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value",
  ).run(key, value);
}
