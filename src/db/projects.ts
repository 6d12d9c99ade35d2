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
/** What a save may bring along. */
export interface SaveMore {
  /** Says of the document before whether only marks have changed since. */
  isMark?: (before: string) => boolean;
  /** The save's own id: the same save again is known, and answered as it was the first time. */
  saveId?: string | undefined;
  /** A document that is kept as a version before this one: one side of two that were put together. */
  side?: { document: string; summary: string } | undefined;
}
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
/** So many saves of a project are known by their ids. */
const KNOWN_SAVES = 100;

export function listProjects(db: Db): ProjectSummary[] {
  return db
    .prepare(
      "SELECT id, title, version, updated_at FROM projects WHERE deleted_at IS NULL ORDER BY updated_at DESC, id",
    )
    .all() as ProjectSummary[];
}

export function getProject(db: Db, id: string): ProjectRow | undefined {
  return db
    .prepare(
      `SELECT id, title, document, version, created_at, updated_at FROM projects WHERE id = ? AND deleted_at IS NULL`,
    )
    .get(id) as ProjectRow | undefined;
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

const savedAs = (db: Db, id: string, saveId: string | undefined): number | undefined =>
  saveId === undefined
    ? undefined
    : (
        db.prepare("SELECT version FROM saves WHERE project_id = ? AND save_id = ?").get(id, saveId) as
          { version: number } | undefined
      )?.version;

function knowSave(db: Db, id: string, saveId: string | undefined, version: number) {
  if (saveId === undefined) return;
  db.prepare("INSERT INTO saves (project_id, save_id, version) VALUES (?, ?, ?)").run(id, saveId, version);
  db.prepare(
    `DELETE FROM saves WHERE project_id = ? AND save_id NOT IN
      (SELECT save_id FROM saves WHERE project_id = ? ORDER BY version DESC LIMIT ${KNOWN_SAVES})`,
  ).run(id, id);
}

/**
 * Saves when `base` is the stored version; otherwise nothing is written and the stored row comes back as stale. A save that is
 * known by its id was answered before, and the answer got lost: it is fine, whatever came after it.
 */
export function saveProject(
  db: Db,
  id: string,
  base: number,
  title: string,
  document: string,
  summary: string,
  more: SaveMore = {},
): { ok: true; version: number } | { ok: false; row: ProjectRow | undefined } {
  return db
    .transaction(() => {
      const now = getProject(db, id);
      const known = now && savedAs(db, id, more.saveId);
      if (known !== undefined) return { ok: true as const, version: known };
      if (!now || now.version !== base) return { ok: false as const, row: now };
      const at = new Date().toISOString();
      let version = base;
      if (more.side) keepRevision(db, id, ++version, more.side.document, more.side.summary, at);
      version++;
      db.prepare("UPDATE projects SET title = ?, document = ?, version = ?, updated_at = ? WHERE id = ?").run(
        title,
        document,
        version,
        at,
        id,
      );
      if (more.side || !more.isMark?.(now.document) || !markRevision(db, id, version, document))
        keepRevision(db, id, version, document, summary, at);
      knowSave(db, id, more.saveId, version);
      return { ok: true as const, version };
    })
    .immediate();
}

/** Into the bin, with all versions: see `bin.ts`. */
export function deleteProject(db: Db, id: string): boolean {
  return (
    db
      .prepare("UPDATE projects SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL")
      .run(new Date().toISOString(), id).changes > 0
  );
}

export function listRevisions(db: Db, id: string): RevisionRow[] {
  const list = db
    .prepare(
      `SELECT version, summary, at,
        CASE WHEN json_valid(document) THEN json_array_length(document, '$.bench') END AS marks,
        CASE WHEN json_valid(document) THEN json_extract(document, '$.savedPlan.at') END AS saved,
        CASE WHEN json_valid(document) THEN json_extract(document, '$.savedPlan.name') END AS name
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
