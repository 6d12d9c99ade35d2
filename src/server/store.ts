import fs from "node:fs";
import path from "node:path";
import { openDatabase, type Db } from "../db/database";
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

const holder = globalThis as typeof globalThis & { latticeDb?: { folder: string; db: Db } };

/** The one database connection of this process: of the folder that it is told to keep its data in. */
export function database(): Db {
  const folder = dataFolder();
  if (holder.latticeDb?.folder !== folder) {
    holder.latticeDb?.db.close();
    delete holder.latticeDb;
    const db = openDatabase(folder);
    seed(db);
    holder.latticeDb = { folder, db };
  }
  return holder.latticeDb!.db;
}
