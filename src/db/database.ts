import Database from "better-sqlite3";
import fs from "node:fs";
import path from "node:path";
import { MIGRATIONS } from "./migrations";
import { expectUncut, newerData, plainly } from "./trouble";

export type Db = Database.Database;

/** Projects are their owner's: other accounts of the machine read none of them. SQLite gives the files beside this one the same rights. */
const OWNER_ONLY = 0o600;
export function ownFile(file: string) {
  fs.closeSync(fs.openSync(file, "a", OWNER_ONLY));
  try {
    fs.chmodSync(file, OWNER_ONLY);
  } catch {
    // A file system without rights, such as a memory card's, or a file of somebody else's: it is used as it is.
  }
}

const versionOf = (db: Db) => db.pragma("user_version", { simple: true }) as number;

/** A whole copy of the data as they were before a migration, what is not in the main file yet included; an earlier one is kept. */
function keepCopy(db: Db, file: string, version: number) {
  const copy = `${file}.before-${version + 1}`;
  if (fs.existsSync(copy)) return;
  // Whole or not at all: half a copy of a stopped program is made anew.
  const part = `${copy}.part`;
  fs.rmSync(part, { force: true });
  db.prepare("VACUUM INTO ?").run(part);
  const written = new Database(part, { readonly: true });
  const whole = written.pragma("integrity_check", { simple: true });
  written.close();
  if (whole !== "ok") throw Object.assign(new Error(), { code: "SQLITE_CORRUPT" });
  ownFile(part);
  fs.renameSync(part, copy);
}

/** Brings the schema up to date, one transaction a migration: of two programs that start at once, the second finds it done. */
function migrate(db: Db, file: string) {
  const now = versionOf(db);
  if (now > MIGRATIONS.length) throw newerData(file, now);
  if (now > 0 && now < MIGRATIONS.length) keepCopy(db, file, now);
  const step = db.transaction(() => {
    const v = versionOf(db);
    if (v >= MIGRATIONS.length) return false;
    db.exec(MIGRATIONS[v]!);
    db.pragma(`user_version = ${v + 1}`);
    return true;
  });
  while (step.immediate());
}

export const dataFile = (folder: string): string => path.join(folder, "young-lattice.sqlite");

function open(folder: string, file: string): Db {
  fs.mkdirSync(folder, { recursive: true, mode: 0o700 });
  expectUncut(file);
  ownFile(file);
  const db = new Database(file);
  try {
    return prepared(db, file);
  } catch (e) {
    db.close();
    throw e;
  }
}

function prepared(db: Db, file: string): Db {
  // Before anything else: what another program holds is waited for.
  db.pragma("busy_timeout = 5000");
  db.pragma("journal_mode = WAL");
  db.pragma("synchronous = FULL");
  db.pragma("foreign_keys = ON");
  migrate(db, file);
  return db;
}

/**
 * Opens (and creates) the database in a folder. Acknowledged writes are on disk when the call returns. Throws `DataTrouble` with a
 * sentence where the file can't be used.
 */
export function openDatabase(folder: string): Db {
  const file = dataFile(folder);
  try {
    return open(folder, file);
  } catch (e) {
    throw plainly(e, file);
  }
}
