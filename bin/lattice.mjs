#!/usr/bin/env node
// Bundles the command line once into the cache and runs it from there; a changed source is bundled anew.
import fs from "node:fs";
import path from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), "..");
const cache = path.join(root, "node_modules/.cache/lattice");

/** The newest change below a folder, in milliseconds. */
function newest(folder) {
  let last = 0;
  for (const e of fs.readdirSync(folder, { withFileTypes: true })) {
    const at = path.join(folder, e.name);
    last = Math.max(last, e.isDirectory() ? newest(at) : fs.statSync(at).mtimeMs);
  }
  return last;
}

const sources = ["src/core", "src/cli", "src/db", "src/prove", "catalogue"].map((d) => path.join(root, d));
// A folder for each state of the sources, in pieces: what a verb does not use is not read.
const name = `cli-${Math.floor(Math.max(...sources.map(newest)))}`;
const bundle = path.join(cache, name);
if (!fs.existsSync(bundle)) {
  const { build } = await import("esbuild");
  // Bundled beside its place and moved, so that two calls at once never see half of it.
  const temp = path.join(cache, `part-${process.pid}`);
  await build({
    entryPoints: [path.join(root, "src/cli/main.ts")],
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
  const LONG_AGO = Date.now() - 3_600_000;
  for (const old of fs.readdirSync(cache)) {
    const at = path.join(cache, old);
    if (old !== name && fs.statSync(at).mtimeMs < LONG_AGO) fs.rmSync(at, { recursive: true, force: true });
  }
}
const { main } = await import(pathToFileURL(path.join(bundle, "main.mjs")).href);
process.exitCode = await main(process.argv.slice(2));
