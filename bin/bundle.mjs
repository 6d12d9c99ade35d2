// Bundles a program of the sources once into the cache; changed sources are bundled anew.
import fs from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), "..");
const cache = path.join(root, "node_modules/.cache/lattice");
const LONG_AGO_MS = 3_600_000;

/** The newest change below a folder, in milliseconds. */
function newest(folder) {
  let last = 0;
  for (const e of fs.readdirSync(folder, { withFileTypes: true })) {
    const at = path.join(folder, e.name);
    last = Math.max(last, e.isDirectory() ? newest(at) : fs.statSync(at).mtimeMs);
  }
  return last;
}

/** Where the bundle of `entry` (a path below the root) is, made when it is not there. `name` is its own among bundles. */
export async function bundled(name, entry, folders) {
  const sources = folders.map((d) => path.join(root, d));
  // A folder for each state of the sources, in pieces: what is not used is not read.
  const folder = `${name}-${Math.floor(Math.max(...sources.map(newest)))}`;
  const bundle = path.join(cache, folder);
  const file = path.join(bundle, `${path.basename(entry, ".ts")}.mjs`);
  if (fs.existsSync(bundle)) return file;
  const { build } = await import("esbuild");
  // Bundled beside its place and moved, so that two calls at once never see half of it.
  const temp = path.join(cache, `part-${name}-${process.pid}`);
  await build({
    entryPoints: [path.join(root, entry)],
    outdir: temp,
    outExtension: { ".js": ".mjs" },
    bundle: true,
    splitting: true,
    platform: "node",
    format: "esm",
    target: "node20",
    logLevel: "error",
    external: ["better-sqlite3"],
    banner: {
      js: 'import { createRequire as makeRequire } from "node:module"; const require = makeRequire(import.meta.url);',
    },
  });
  try {
    fs.renameSync(temp, bundle);
  } catch (e) {
    // Another call was as fast.
    fs.rmSync(temp, { recursive: true, force: true });
    if (!fs.existsSync(bundle)) throw e;
  }
  // A call that began before the sources changed may still be reading its own.
  for (const old of fs.readdirSync(cache)) {
    const at = path.join(cache, old);
    const mine = old.startsWith(`${name}-`) || old.startsWith("part-");
    if (mine && old !== folder && fs.statSync(at).mtimeMs < Date.now() - LONG_AGO_MS)
      fs.rmSync(at, { recursive: true, force: true });
  }
  return file;
}
