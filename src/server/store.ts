import fs from "node:fs";
import path from "node:path";
import { dataFile, openDatabase, type Db } from "../db/database";
import { clearBin } from "../db/bin";
import { plainly } from "../db/trouble";
import { getSetting, insertProject, setSetting } from "../db/projects";
import { shippedCatalogue } from "../core/parts/catalogue/shipped";
import { readProject, writeProject } from "../core/project";
import { newId } from "./ids";

export const dataFolder = () => process.env.LATTICE_DATA ?? path.join(process.cwd(), "data");

/** Puts the demo projects in, once in the life of a database, unless it was started empty. */
function seedOnce(db: Db) {
  if (getSetting(db, "seeded")) return;
  if (process.env.LATTICE_EMPTY !== "1") {
    const folder = path.join(process.cwd(), "demo");
    for (const name of fs.readdirSync(folder).sort().reverse()) {
      const result = readProject(fs.readFileSync(path.join(folder, name), "utf8"), shippedCatalogue());
      if (!result.ok) throw new Error(`${name}: ${JSON.stringify(result.problems)}`);
      insertProject(db, newId(), result.project.title, writeProject(result.project), "demo project");
    }
  }
  setSetting(db, "seeded", "1");
}

/** Of two first starts at the same time one waits for the other, and finds them there. */
const seed = (db: Db) => db.transaction(() => seedOnce(db)).immediate();

interface Held {
  folder: string;
  db: Db;
  /** Which file it is, whatever is called so later. */
  file: number;
}
const holder = globalThis as typeof globalThis & {
  latticeDb?: Held;
  /** The folder whose file went away while it was open: no new one is begun in its place. */
  latticeGone?: string;
};

const fileNumber = (folder: string) => fs.statSync(dataFile(folder), { throwIfNoEntry: false })?.ino;

function opened(folder: string): Held {
  const db = openDatabase(folder);
  try {
    seed(db);
    clearBin(db, new Date());
  } catch (e) {
    db.close();
    throw plainly(e, dataFile(folder));
  }
  return { folder, db, file: fileNumber(folder)! };
}

/** What was worked out from the data that were there before is not kept. */
const forgetters: (() => void)[] = [];
export const onReopened = (forget: () => void): void => void forgetters.push(forget);
/** To be called when other data stand in the place of those that were there. */
export const reopened = (): void => forgetters.forEach((f) => f());

/** At a normal stop all of the data stand in the one file, which can then be copied. */
export function closeDatabase(): void {
  const held = holder.latticeDb;
  delete holder.latticeDb;
  try {
    held?.db.pragma("wal_checkpoint(TRUNCATE)");
    held?.db.close();
  } catch {
    // Somebody else holds it: they will.
  }
}

/**
 * The one database connection of this process: of the folder that it is told to keep its data in. A file that was put in the place
 * of the one that is open is opened instead; where none is there any more that is said, for what is written into it is lost.
 */
export function database(): Db {
  const folder = dataFolder();
  const held = holder.latticeDb;
  const there = held?.folder === folder ? fileNumber(folder) : undefined;
  if (held && held.folder === folder && there === held.file) return held.db;
  held?.db.close();
  delete holder.latticeDb;
  if (held?.folder === folder && there === undefined) holder.latticeGone = folder;
  if (holder.latticeGone === folder && fileNumber(folder) === undefined)
    throw plainly(Object.assign(new Error(), { code: "ENOENT" }), dataFile(folder));
  delete holder.latticeGone;
  return (holder.latticeDb = opened(folder)).db;
}
