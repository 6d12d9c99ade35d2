import fs from "node:fs/promises";
import { readFileSync, statSync } from "node:fs";
import path from "node:path";
import { createRequire } from "node:module";
import { terminal } from "../core/words";
import { shippedCatalogue } from "../core/parts/catalogue/shipped";
import { MAX_PROJECT_BYTES, readProject, type Project } from "../core/project";

export const EXIT = { fine: 0, unusable: 2, findings: 3, noPlan: 4 } as const;

/** Input that can't be used: the message names file, place and what would be right. */
export class Unusable extends Error {}

export const catalogue = shippedCatalogue();

/** Reads and validates a project file, or says in full what is wrong with it. */
export function loadFile(file: string): Project {
  let text: string;
  try {
    if (statSync(file).size > MAX_PROJECT_BYTES * 2)
      throw new Unusable(`${file}: the file is far larger than a project can be`);
    text = readFileSync(file, "utf8");
  } catch (e) {
    if (e instanceof Unusable) throw e;
    const code = (e as NodeJS.ErrnoException).code;
    const why =
      code === "ENOENT"
        ? "there is no such file"
        : code === "EISDIR"
          ? "this is a folder, not a project file"
          : `can't be read (${code})`;
    throw new Unusable(`${file}: ${why}`);
  }
  const result = readProject(text, catalogue);
  if (result.ok) return result.project;
  throw new Unusable(result.problems.map((p) => `${file}: ${p.path ? `${p.path}: ` : ""}${p.message}`).join("\n"));
}

/** Writes through a temporary file in the same folder, so that a reader never sees half of it. */
export async function writeFileWhole(file: string, data: string | Uint8Array): Promise<void> {
  const temp = `${file}.part-${process.pid}`;
  try {
    await fs.writeFile(temp, data);
    await fs.rename(temp, file);
  } catch (e) {
    await fs.rm(temp, { force: true });
    throw new Unusable(`${file}: can't be written (${(e as NodeJS.ErrnoException).code})`);
  }
}

const resolver = createRequire(import.meta.url);
const fontFile = (weight: number) =>
  path.join(
    path.dirname(resolver.resolve("@fontsource/atkinson-hyperlegible-next/package.json")),
    `files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
  );

/** The shipped fonts for the printed plan. */
export const planFonts = () => ({
  text: new Uint8Array(readFileSync(fontFile(400))),
  bold: new Uint8Array(readFileSync(fontFile(700))),
});

export const print = (text: string) => process.stdout.write(`${terminal(text)}\n`);
export const printJson = (value: unknown) => print(JSON.stringify(value, null, 2));
export const note = (text: string) => process.stderr.write(`${terminal(text)}\n`);

/** Aligned columns for people. */
export function columns(rows: string[][]): string {
  const widths = rows[0]!.map((_, i) => Math.max(...rows.map((r) => [...r[i]!].length)));
  return rows
    .map((r) => r.map((cell, i) => (i === r.length - 1 ? cell : cell.padEnd(widths[i]!))).join("  "))
    .join("\n");
}

/** Longest time that a verb may be given, seconds. */
const MOST_SECONDS = 3600;
/** Milliseconds that `--seconds` allows; undefined where it is left out: as long as it takes by itself. */
export function allowed_ms(seconds: string | undefined): number | undefined {
  if (seconds === undefined) return undefined;
  const s = Number(seconds);
  if (!(s > 0 && s <= MOST_SECONDS))
    throw new Unusable(`--seconds ${seconds}: a number above 0 and up to ${MOST_SECONDS} is needed`);
  return s * 1000;
}
