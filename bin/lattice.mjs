#!/usr/bin/env node
// The command line: bundled once, run from the cache.
import { pathToFileURL } from "node:url";
import { bundled } from "./bundle.mjs";

// Who only wants the first lines closes the pipe: that is no failure.
process.stdout.on("error", (e) => {
  if (e.code !== "EPIPE") throw e;
  process.exit(0);
});

const file = await bundled("cli", "src/cli/main.ts", ["src/core", "src/cli", "src/db", "src/prove", "catalogue"]);
const { main } = await import(pathToFileURL(file).href);
process.exitCode = await main(process.argv.slice(2));
