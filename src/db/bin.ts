import type { Db } from "./database";

/** A deleted project: it comes back under its own address, with all its versions, until its time is over. */
export interface BinRow {
  id: string;
  title: string;
  version: number;
  deleted_at: string;
}

/** So long a deleted project is kept, days. */
export const KEPT_DAYS = 30;
const DAY_MS = 86_400_000;

/** Deleted projects whose time is over go for good. Answers with how many. */
export function clearBin(db: Db, now: Date): number {
  const before = new Date(now.getTime() - KEPT_DAYS * DAY_MS).toISOString();
  return db.prepare("DELETE FROM projects WHERE deleted_at IS NOT NULL AND deleted_at < ?").run(before).changes;
}

export const listBin = (db: Db): BinRow[] =>
  db
    .prepare(
      `SELECT id, title, version, deleted_at FROM projects WHERE deleted_at IS NOT NULL ORDER BY deleted_at DESC, id`,
    )
    .all() as BinRow[];

export const bringBack = (db: Db, id: string): boolean =>
  db.prepare("UPDATE projects SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL").run(id).changes > 0;

/** Only what is in the bin already can go for good. */
export const deleteForGood = (db: Db, id: string): boolean =>
  db.prepare("DELETE FROM projects WHERE id = ? AND deleted_at IS NOT NULL").run(id).changes > 0;
