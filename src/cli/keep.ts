import fs from "node:fs";
import path from "node:path";
import { count } from "../core/quantity/count";
import { makeZip } from "../core/formats/zip";
import { backupTo, previewOf, restoreFrom, type Contents } from "../db/backup";
import { dataFile, openDatabase, type Db } from "../db/database";
import { openFiles } from "../db/open-files";
import { DataTrouble } from "../db/trouble";
import { EXIT, note, print, printJson, Unusable, writeFileWhole } from "./io";

interface Where {
  data?: string;
  json?: boolean;
}

const folderOf = (o: Where) => path.resolve(o.data ?? process.env.LATTICE_DATA ?? "data");

/** Works with the data of the app, which may be running. A folder without data is refused: none is begun here. */
async function withData<T>(o: Where, work: (db: Db, folder: string) => T | Promise<T>): Promise<T> {
  const folder = folderOf(o);
  if (!fs.existsSync(dataFile(folder)))
    throw new Unusable(`${folder}: there are no data of the app here. Say where with --data FOLDER`);
  let db: Db | undefined;
  try {
    db = openDatabase(folder);
    return await work(db, folder);
  } catch (e) {
    if (e instanceof DataTrouble) throw new Unusable(e.message);
    const code = (e as NodeJS.ErrnoException).code;
    if (code === "ENOSPC" || code === "SQLITE_FULL")
      throw new Unusable("The disk is full. Make room, then do it again.");
    throw e;
  } finally {
    db?.close();
  }
}

const holds = (c: Contents) =>
  `${count(c.projects, "project")} in ${count(c.versions, "version")}, ${count(c.parts, "own part")}, ${c.deleted} in the bin`;

/** A file that is written whole where nothing stood, or over an older one of its kind with --force. */
function expectFree(file: string, force: boolean | undefined): string {
  const at = path.resolve(file);
  const there = fs.statSync(at, { throwIfNoEntry: false });
  if (there?.isDirectory()) throw new Unusable(`${file}: this is a folder; a file to write is wanted`);
  if (there && !force) throw new Unusable(`${file}: is there already; another name, or --force to replace it`);
  const folder = path.dirname(at);
  try {
    fs.accessSync(folder, fs.constants.W_OK);
  } catch {
    throw new Unusable(`${folder}: can't be written to`);
  }
  return at;
}

/** Everything of the app into one file, verified. */
export const backupCommand = (file: string, o: Where & { force?: boolean }): Promise<number> =>
  withData(o, async (db) => {
    const contents = await backupTo(db, expectFree(file, o.force));
    if (o.json) printJson({ file, ...contents });
    else print(`${file}: ${holds(contents)}`);
    return EXIT.fine;
  });

/** What restoring would do; with --yes it is done, and what was there is kept beside the data file. */
export const restoreCommand = (file: string, o: Where & { yes?: boolean }): Promise<number> =>
  withData(o, async (db, folder) => {
    if (!fs.existsSync(file)) throw new Unusable(`${file}: there is no such file`);
    const p = previewOf(db, file, folder);
    const kept = o.yes ? await restoreFrom(db, file, folder, new Date()) : null;
    if (o.json) {
      printJson({ ...p, restored: o.yes ?? false, kept });
      return EXIT.fine;
    }
    print(`in the backup: ${holds(p.copy)}`);
    print(`${o.yes ? "was here" : "here now"}: ${holds(p.here)}`);
    const list = (says: string, titles: readonly string[]) => titles.forEach((t) => print(`${says}: ${t}`));
    list(o.yes ? "came back" : "comes back", p.back);
    list(o.yes ? "is gone" : "would be gone", p.lost);
    list(o.yes ? "is older now" : "would be older", p.older);
    list(o.yes ? "is newer now" : "would be newer", p.newer);
    if (kept) print(`restored; what was here before is in ${path.join(folder, kept)}`);
    else note("nothing was changed; with --yes it is restored");
    return EXIT.fine;
  });

/** All projects and own parts as open files in one ZIP. */
export const exportCommand = (file: string, o: Where & { force?: boolean }): Promise<number> =>
  withData(o, async (db) => {
    const at = expectFree(file, o.force);
    const files = openFiles(db);
    await writeFileWhole(at, makeZip(files));
    const n = Object.keys(files).length;
    if (o.json) printJson({ file, files: n });
    else print(`${file}: ${count(n, "file")}`);
    return EXIT.fine;
  });
