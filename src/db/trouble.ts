import fs from "node:fs";
import path from "node:path";

/** The data can't be used as they are: one sentence with what to do. Nothing was changed. */
export class DataTrouble extends Error {
  constructor(
    readonly status: 400 | 503 | 507,
    message: string,
  ) {
    super(message);
  }
}

/** The newest whole copy beside a data file, as a person would say it. */
function lastCopy(file: string): string {
  const folder = path.dirname(file);
  let names: string[] = [];
  try {
    names = fs
      .readdirSync(folder)
      .filter((n) => n.startsWith(`${path.basename(file)}.before-`) && !n.endsWith(".part"));
  } catch {
    // The folder itself is the trouble.
  }
  const [newest] = names
    .map((n) => ({ n, at: fs.statSync(path.join(folder, n)).mtime }))
    .sort((a, b) => b.at.getTime() - a.at.getTime());
  return newest
    ? `The last good copy is ${newest.n}, of ${newest.at.toISOString().slice(0, 10)}: stop the app, put it in the place of ${path.basename(file)}, start again.`
    : "There is no copy beside it. Put one of your own in its place, or start with another folder: ./start --data FOLDER";
}

type Says = (file: string) => [503 | 507, string];
const noFolder: Says = (file) => [
  503,
  `${path.dirname(file)} is a file, where a folder is needed for the data. Start with another one: ./start --data FOLDER`,
];
const damaged: Says = (file) => [503, `The data file ${file} is damaged and can't be read. ${lastCopy(file)}`];
const unwritable: Says = (file) => [
  503,
  `The data file ${file} can't be written by this account. Give it the right to write there, or start with another folder: ./start --data FOLDER`,
];
const full: Says = (file) => [507, `The disk that holds ${file} is full. Make room there, then do it again.`];
const gone: Says = (file) => [
  503,
  `The data file ${file} is not there any more, or its folder can't be opened. Bring the folder back, then start the app again.`,
];

/** What the database and the system call their failures, by the beginning of the code. Adding one is a line. */
const CODES: readonly (readonly [string, Says])[] = [
  ["SQLITE_CORRUPT", damaged],
  ["SQLITE_NOTADB", damaged],
  ["SQLITE_READONLY", unwritable],
  ["SQLITE_PERM", unwritable],
  ["EACCES", unwritable],
  ["EPERM", unwritable],
  ["EROFS", unwritable],
  ["SQLITE_FULL", full],
  ["ENOSPC", full],
  ["EDQUOT", full],
  [
    "SQLITE_BUSY",
    (file) => [
      503,
      `Another program holds the data file ${file}. Close it, or wait until it is done, then do it again.`,
    ],
  ],
  ["SQLITE_LOCKED", (file) => [503, `The data file ${file} is in use this moment. Do it again.`]],
  [
    "EISDIR",
    (file) => [
      503,
      `${file} is a folder, where the data file should be. Take it away, or start with another folder: ./start --data FOLDER`,
    ],
  ],
  ["SQLITE_CANTOPEN", gone],
  ["SQLITE_IOERR", gone],
  ["ENOENT", gone],
  ["ENOTDIR", noFolder],
  ["EEXIST", noFolder],
];

/** A failure of the data file in plain words; what is none is thrown on as it is. */
export function plainly(e: unknown, file: string): unknown {
  const code = (e as { code?: unknown } | null)?.code;
  if (e instanceof DataTrouble || typeof code !== "string") return e;
  const says = CODES.find(([begins]) => code.startsWith(begins))?.[1];
  return says ? new DataTrouble(...says(file)) : e;
}

/** The same for what fails while the database is in use: only what the database itself says is its trouble. */
export const inUse = (e: unknown, file: string): unknown =>
  String((e as { code?: unknown } | null)?.code).startsWith("SQLITE_") ? plainly(e, file) : e;

/** A file without a single byte beside copies of one that had some was cut: it is no new one. */
export function expectUncut(file: string): void {
  const size = (f: string) => fs.statSync(f, { throwIfNoEntry: false })?.size;
  if (size(file) !== 0) return;
  const copies = fs.readdirSync(path.dirname(file)).some((n) => n.startsWith(`${path.basename(file)}.before-`));
  if (copies || (size(`${file}-wal`) ?? 0) > 0)
    throw new DataTrouble(503, `The data file ${file} is empty: it was cut to nothing. ${lastCopy(file)}`);
}

export const newerData = (file: string, version: number): DataTrouble =>
  new DataTrouble(
    503,
    `The data file ${file} was written by a newer version of this program (${version}). Update the program, or start with another folder: ./start --data FOLDER`,
  );
