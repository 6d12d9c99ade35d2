import { existsSync, renameSync, rmSync } from "node:fs";
import fs from "node:fs/promises";
import os from "node:os";
import path from "node:path";
import { Unusable } from "./io";

/** Lies in a folder that a plan was written to, and names what was written: everything else there is the person's. */
const MARKER = ".lattice-plan.json";
const codeOf = (e: unknown) => (e as NodeJS.ErrnoException).code ?? String(e);

export async function isEmptyOrMissing(dir: string): Promise<boolean> {
  try {
    return (await fs.readdir(dir)).length === 0;
  } catch (e) {
    if (codeOf(e) === "ENOENT") return true;
    throw new Unusable(
      `${dir}: ${codeOf(e) === "ENOTDIR" ? "this is a file; name a folder" : `can't be read (${codeOf(e)})`}`,
    );
  }
}

/** What an earlier plan wrote into a folder, or null where none did. Broken or foreign markers count as none. */
async function writtenBy(dir: string): Promise<ReadonlySet<string> | null> {
  try {
    const { files } = JSON.parse(await fs.readFile(path.join(dir, MARKER), "utf8")) as { files?: unknown };
    return Array.isArray(files) && files.every((f) => typeof f === "string") ? new Set(files) : null;
  } catch {
    return null;
  }
}

const isInside = (inner: string, outer: string) => {
  const way = path.relative(outer, inner);
  return way === "" || (!way.startsWith("..") && !path.isAbsolute(way));
};

/** Refuses to replace a folder that no plan wrote, or that the person stands in. */
export async function expectReplaceable(dir: string): Promise<void> {
  const target = await fs.realpath(dir);
  const home = await fs.realpath(os.homedir()).catch(() => os.homedir());
  if (isInside(process.cwd(), target))
    throw new Unusable(
      `${dir}: this is the folder that you are in, or one above it, and is not replaced; name another one`,
    );
  if (isInside(home, target)) throw new Unusable(`${dir}: a home is not replaced; name another folder`);
  if ((await writtenBy(target)) === null)
    throw new Unusable(
      `${dir}: no plan was written here (there is no ${MARKER}), so --force does not replace it; name another folder, or empty this one yourself`,
    );
}

/** Files of the person in a folder of an earlier plan, by their paths in it: whatever the plan did not write. */
async function ownFiles(dir: string): Promise<string[]> {
  const written = await writtenBy(dir);
  if (!written) return [];
  const all = await fs.readdir(dir, { recursive: true, withFileTypes: true });
  return all
    .filter((e) => !e.isDirectory())
    .map((e) => path.relative(dir, path.join(e.parentPath, e.name)))
    .filter((f) => f !== MARKER && !written.has(f.split(path.sep).join("/")))
    .sort();
}

/**
 * Puts a folder in the place of another by two renames, with nothing between them that a signal could stop; when the second fails
 * the old one comes back. Gives where the old one is now.
 */
function swap(target: string, next: string): string | null {
  const old = `${next}-old`;
  const there = existsSync(target);
  if (there) renameSync(target, old);
  try {
    renameSync(next, target);
  } catch (e) {
    if (there) renameSync(old, target);
    throw e;
  }
  return there ? old : null;
}

/** What a call that was killed left behind; one that is under way is younger. */
const LONG_AGO_MS = 3_600_000;
async function clearLeft(parent: string): Promise<void> {
  for (const name of await fs.readdir(parent).catch(() => [])) {
    // Never what an interrupted swap put aside: that is somebody's plan.
    if (!/^\.lattice-[A-Za-z0-9]{6}$/.test(name)) continue;
    const at = path.join(parent, name);
    const age = Date.now() - ((await fs.stat(at).catch(() => null))?.mtimeMs ?? Date.now());
    if (age > LONG_AGO_MS) await fs.rm(at, { recursive: true, force: true }).catch(() => undefined);
  }
}

/**
 * Writes all files into a temporary folder beside the target, then moves it into place: whole or not at all. What the person put
 * into an earlier plan's folder goes along, except where the plan has a file of that name now. Gives the paths of what went along.
 */
export async function writePlanFolder(dir: string, files: Record<string, string | Uint8Array>): Promise<string[]> {
  const target = path.resolve(dir);
  let temp = "";
  const clean = () => {
    if (temp) rmSync(temp, { recursive: true, force: true });
  };
  const stop = (signal: NodeJS.Signals) => {
    clean();
    process.exit(signal === "SIGINT" ? 130 : 143);
  };
  const SIGNALS = ["SIGINT", "SIGTERM", "SIGHUP"] as const;
  for (const s of SIGNALS) process.on(s, stop);
  try {
    await fs.mkdir(path.dirname(target), { recursive: true });
    await clearLeft(path.dirname(target));
    temp = await fs.mkdtemp(path.join(path.dirname(target), ".lattice-"));
    const marker = JSON.stringify({ files: Object.keys(files).sort() }, null, 2);
    for (const [name, data] of Object.entries({ ...files, [MARKER]: `${marker}\n` })) {
      const file = path.join(temp, name);
      await fs.mkdir(path.dirname(file), { recursive: true });
      await fs.writeFile(file, data);
    }
    const own = (await ownFiles(target)).filter((f) => !(f.split(path.sep).join("/") in files));
    for (const f of own) {
      await fs.mkdir(path.dirname(path.join(temp, f)), { recursive: true });
      await fs.cp(path.join(target, f), path.join(temp, f), { verbatimSymlinks: true, preserveTimestamps: true });
    }
    await fs.chmod(temp, 0o755);
    const old = swap(target, temp);
    temp = "";
    if (old) await fs.rm(old, { recursive: true, force: true });
    return own;
  } catch (e) {
    if (e instanceof Unusable) throw e;
    const code = codeOf(e);
    throw new Unusable(
      `${dir}: ${code === "ENOSPC" ? "the disk is full" : code === "EACCES" || code === "EROFS" || code === "EPERM" ? "it may not be written there" : `can't be written (${code})`}; nothing was changed`,
    );
  } finally {
    clean();
    for (const s of SIGNALS) process.off(s, stop);
  }
}
