/**
 * Writes src/core/idea/words/not-misspelt.ts: English words that lie so near to a word of the idea's table that they would be taken
 * for a slip of it. Give it files with a JSON list of words each.
 */
import fs from "node:fs";
import { meantWord } from "../src/core/idea/words/spelling";

const FILE = "src/core/idea/words/not-misspelt.ts";
const head =
  "/** English words that are no slips of others, although they look like it (scripts/not-misspelt.ts). */\n";
const old = fs.existsSync(FILE) ? [...fs.readFileSync(FILE, "utf8").matchAll(/"([a-z ]{6,})"/g)].map((m) => m[1]!) : [];
const words = process.argv.slice(2).flatMap((f) => JSON.parse(fs.readFileSync(f, "utf8")) as string[]);
const near = [...new Set([...old.flatMap((l) => l.split(" ")), ...words.map((w) => w.toLowerCase())])]
  .filter((w) => /^[a-z]{5,}$/.test(w) && (old.some((l) => l.split(" ").includes(w)) || meantWord(w) !== null))
  .sort();
const lines = near.join(" ").match(/.{1,110}(?: |$)/g) ?? [];
fs.writeFileSync(
  FILE,
  `${head}export const NOT_MISSPELT: ReadonlySet<string> = new Set(\n  [\n${lines.map((l) => `    ${JSON.stringify(l.trim())},`).join("\n")}\n  ]\n    .join(" ")\n    .split(" "),\n);\n`,
);
console.log(near.length);
