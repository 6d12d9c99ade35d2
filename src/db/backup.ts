import Database from "better-sqlite3";
import fs from "node:fs";
import path from "node:path";
import { MIGRATIONS } from "./migrations";
import { dataFile, openDatabase, ownFile, type Db } from "./database";
import { DataTrouble, newerData } from "./trouble";

/** What a data file holds. */
export interface Contents {
  projects: number;
  /** Projects in its bin. */
  deleted: number;
  versions: number;
  parts: number;
  /** When the last of its projects was changed; null: it has none. */
  changed: string | null;
}

/** What would become of the projects here if a copy took their place. */
export interface Preview {
  copy: Contents;
  here: Contents;
  /** Not here, or in the bin here, and in the copy. */
  back: string[];
  /** Here, and not in the copy: they would be gone. */
  lost: string[];
  /** In both, and other: which is the newer one. */
  older: string[];
  newer: string[];
  same: number;
}

const one = <T>(db: Db, sql: string) => db.prepare(sql).get() as T;

export function contentsOf(db: Db): Contents {
  const n = (sql: string) => one<{ n: number }>(db, `SELECT count(*) AS n FROM ${sql}`).n;
  return {
    projects: n("projects WHERE deleted_at IS NULL"),
    deleted: n("projects WHERE deleted_at IS NOT NULL"),
    versions: n("revisions"),
    parts: n("own_parts"),
    changed: one<{ at: string | null }>(db, "SELECT max(updated_at) AS at FROM projects WHERE deleted_at IS NULL").at,
  };
}

const TABLES = [
  "projects",
  "revisions",
  "saves",
  "settings",
  "own_parts",
  "attempts",
  "courses",
  "rooms",
  "room_benches",
  "room_events",
] as const;

/** Throws with a sentence when a file is no whole data file of this program, or of a newer one. Nothing is written. */
export function expectWhole(file: string): void {
  const no = (why: string) => new DataTrouble(400, `${path.basename(file)} is no backup that can be used: ${why}`);
  let db: Db | undefined;
  try {
    db = new Database(file, { readonly: true, fileMustExist: true });
    const version = db.pragma("user_version", { simple: true }) as number;
    const named = (name: string) =>
      db!.prepare("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = ?").get(name) !== undefined;
    if (version < 1 || !named("projects") || !named("revisions")) throw no("it holds no projects of this program.");
    if (version > MIGRATIONS.length) throw newerData(file, version);
    // What runs by itself when rows are written has no place in a data file.
    if (one<{ n: number }>(db, "SELECT count(*) AS n FROM sqlite_master WHERE type IN ('trigger', 'view')").n)
      throw no("it carries programs of its own.");
    if (db.pragma("integrity_check", { simple: true }) !== "ok") throw no("it is damaged.");
    if ((db.pragma("foreign_key_check") as unknown[]).length) throw no("versions in it belong to no project.");
  } catch (e) {
    if (e instanceof DataTrouble) throw e;
    throw no("it is damaged, cut off, or something else than a backup.");
  } finally {
    db?.close();
  }
}

/** Everything into one file by the database's online backup, while others go on writing; read back and whole, or not there at all. */
export async function backupTo(db: Db, file: string): Promise<Contents> {
  const part = `${file}.part-${process.pid}`;
  try {
    await db.backup(part);
    ownFile(part);
    // One file: what would stand beside it is in it.
    const copy = new Database(part);
    copy.pragma("journal_mode = DELETE");
    const contents = contentsOf(copy);
    copy.close();
    expectWhole(part);
    fs.renameSync(part, file);
    return contents;
  } finally {
    for (const more of ["", "-wal", "-shm", "-journal"]) fs.rmSync(part + more, { force: true });
  }
}

/** A copy of a copy in the present shape of the data, in a folder of its own; the file itself stays as it is. */
function withCopy<T>(file: string, folder: string, work: (copy: Db, at: string) => T): T {
  expectWhole(file);
  const temp = fs.mkdtempSync(path.join(folder, "restore-"));
  try {
    fs.copyFileSync(file, dataFile(temp));
    const copy = openDatabase(temp);
    try {
      return work(copy, dataFile(temp));
    } finally {
      copy.close();
    }
  } finally {
    fs.rmSync(temp, { recursive: true, force: true });
  }
}

interface Known {
  id: string;
  title: string;
  updated_at: string;
  document: string;
}
const all = (db: Db) =>
  db
    .prepare("SELECT id, title, updated_at, document FROM projects WHERE deleted_at IS NULL ORDER BY updated_at DESC")
    .all() as Known[];

/** What restoring would do. `folder`: where there is room for a moment. Throws a `DataTrouble` for a file that can't be used. */
export const previewOf = (db: Db, file: string, folder: string): Preview =>
  withCopy(file, folder, (copy) => {
    const [here, there] = [all(db), all(copy)];
    const mine = new Map(here.map((p) => [p.id, p]));
    const theirs = new Map(there.map((p) => [p.id, p]));
    const both = there.flatMap((p) => (mine.has(p.id) ? [{ p, m: mine.get(p.id)! }] : []));
    const other = both.filter(({ p, m }) => p.document !== m.document);
    return {
      copy: contentsOf(copy),
      here: contentsOf(db),
      back: there.filter((p) => !mine.has(p.id)).map((p) => p.title),
      lost: here.filter((p) => !theirs.has(p.id)).map((p) => p.title),
      older: other.filter(({ p, m }) => p.updated_at < m.updated_at).map(({ m }) => m.title),
      newer: other.filter(({ p, m }) => p.updated_at >= m.updated_at).map(({ m }) => m.title),
      same: both.length - other.length,
    };
  });

/**
 * Puts all of a copy in the place of all that is here, in one transaction: whole or not at all, while other connections stay open.
 * What was here is backed up first, beside the data file; its name comes back.
 */
export async function restoreFrom(db: Db, file: string, folder: string, now: Date): Promise<string> {
  expectWhole(file);
  const stamp = now.toISOString().slice(0, 19).replace(/[:T]/g, "-");
  const before = `${dataFile(folder)}.before-restore-${stamp}`;
  await backupTo(db, before);
  withCopy(file, folder, (copy, at) => {
    copy.pragma("wal_checkpoint(TRUNCATE)");
    db.prepare("ATTACH ? AS copy").run(at);
    try {
      db.transaction(() => {
        for (const t of [...TABLES].reverse()) db.prepare(`DELETE FROM main.${t}`).run();
        for (const t of TABLES) {
          const columns = (db.prepare(`PRAGMA main.table_info(${t})`).all() as { name: string }[])
            .map((c) => c.name)
            .join(", ");
          db.prepare(`INSERT INTO main.${t} (${columns}) SELECT ${columns} FROM copy.${t}`).run();
        }
      }).immediate();
    } finally {
      db.prepare("DETACH copy").run();
    }
  });
  return path.basename(before);
}
