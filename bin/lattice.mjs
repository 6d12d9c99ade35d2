#!/usr/bin/env node
import { register } from "tsx/esm/api";

// The command runs from its TypeScript sources; it needs no build.
register();
const { main } = await import("../src/cli/main.ts");
process.exitCode = await main(process.argv.slice(2));
