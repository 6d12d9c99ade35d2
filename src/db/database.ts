import Database from "better-sqlite3";
import fs from "node:fs";
import path from "node:path";
import { MIGRATIONS } from "./migrations";

export type Db = Database.Database;

/** Brings the schema up to date, one transaction a migration; a copy of the file is kept before the first of them. */
function migrate(db: Db, file: string) {
  const now = db.pragma("user_version", { simple: true }) as number;
  if (now > MIGRATIONS.length)
    throw new Error(`${file} was written by a newer version of this program (${now}); update the program to open it`);
  if (now > 0 && now < MIGRATIONS.length) fs.copyFileSync(file, `${file}.before-${now + 1}`);
  for (let v = now; v < MIGRATIONS.length; v++)
    db.transaction(() => {
      db.exec(MIGRATIONS[v]!);
      db.pragma(`user_version = ${v + 1}`);
    })();
}

/** Opens (and creates) the database in a folder. Acknowledged writes are on disk when the call returns. */
export function openDatabase(folder: string): Db {
  fs.mkdirSync(folder, { recursive: true });
  const file = path.join(folder, "young-lattice.sqlite");
  const db = new Database(file);
  db.pragma("journal_mode = WAL");
  db.pragma("synchronous = FULL");
  db.pragma("foreign_keys = ON");
  db.pragma("busy_timeout = 5000");
  migrate(db, file);
  return db;
}
