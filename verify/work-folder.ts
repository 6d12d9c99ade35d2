import path from "node:path";

/** Where things are built: a folder for each of the tests' processes, so that none writes into another's. */
export const WORK = path.resolve(import.meta.dirname, "../.check", `process-${process.env.VITEST_POOL_ID ?? "0"}`);
