#!/usr/bin/env node
// Bundles the command line once into the cache and runs it from there; a changed source is bundled anew.
import fs from "node:fs";
import path from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), "..");
const bundle = path.join(root, "node_modules/.cache/lattice/cli.mjs");

/** The newest change below a folder, in milliseconds. */
function newest(folder) {
  let last = 0;
  for (const e of fs.readdirSync(folder, { withFileTypes: true })) {
    const at = path.join(folder, e.name);
    last = Math.max(last, e.isDirectory() ? newest(at) : fs.statSync(at).mtimeMs);
  }
  return last;
}

const sources = ["src/core", "src/cli", "src/prove", "catalogue"].map((d) => path.join(root, d));
const built = fs.existsSync(bundle) ? fs.statSync(bundle).mtimeMs : 0;
if (Math.max(...sources.map(newest)) > built) {
  const { build } = await import("esbuild");
  // Bundled beside its place and moved, so that two calls at once never see half a file.
  const temp = `${bundle}.${process.pid}.mjs`;
  await build({
    entryPoints: [path.join(root, "src/cli/main.ts")],
    outfile: temp,
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    logLevel: "error",
    banner: {
      js: 'import { createRequire as makeRequire } from "node:module"; const require = makeRequire(import.meta.url);',
    },
  });
  fs.renameSync(temp, bundle);
}
const { main } = await import(pathToFileURL(bundle).href);
process.exitCode = await main(process.argv.slice(2));
