// A thread of the server that makes plans and prints: bundled once, run from the cache.
import { pathToFileURL } from "node:url";
import { bundled } from "./bundle.mjs";

const file = await bundled("heavy", "src/server/heavy/thread.ts", [
  "src/core",
  "src/server/heavy",
  "src/prove",
  "catalogue",
]);
await import(pathToFileURL(file).href);
