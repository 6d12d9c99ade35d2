import { execFileSync } from "node:child_process";
import fs from "node:fs";
import path from "node:path";
import { WORK as FOLDER } from "../work-folder";

const HOST = import.meta.dirname;
const WORK = path.join(FOLDER, "host");

interface File {
  path: string;
  text: string;
}

/** Lays a sketch out beside a `main` and compiles it against the API of this folder, every warning an error. */
function compile(name: string, files: readonly File[], folder: string, main: string, flags: string[]): string {
  const dir = path.join(WORK, name, folder);
  // Nothing of an earlier program stays: what is beside a sketch belongs to it.
  fs.rmSync(dir, { recursive: true, force: true });
  fs.mkdirSync(dir, { recursive: true });
  for (const f of files)
    if (f.path.startsWith(`${folder}/`)) fs.writeFileSync(path.join(dir, path.basename(f.path)), f.text);
  fs.writeFileSync(path.join(dir, "main.cpp"), `#include "${folder}.ino"\n${main}\n`);
  const warnings = [
    "-Wall",
    "-Wextra",
    "-Werror",
    "-Wno-unused-variable",
    "-Wno-unused-function",
    "-Wno-format-truncation",
  ];
  execFileSync("g++", ["-std=gnu++17", ...warnings, ...flags, "-I", HOST, "-I", dir, path.join(dir, "main.cpp")], {
    stdio: ["ignore", "pipe", "pipe"],
  });
  return dir;
}

/**
 * Compiles a sketch of a board without a packaged core on this machine, and runs it: some turns of its loop, keys typed, bytes
 * that come in on a serial port of the chip.
 */
export function runOnHost(
  files: readonly File[],
  folder: string,
  loops: number,
  typed = "",
  bytes: readonly number[] = [],
  family = "",
): string[] {
  const main = `${bytes.length ? `static const uint8_t incoming[] = {${bytes.join(",")}};\n` : ""}int main() { ${bytes.length ? "Port::fed() = incoming; Port::left() = sizeof incoming; " : ""}Console::typed() = ${JSON.stringify(typed)}; setup(); for (int i = 0; i < ${loops}; i++) loop(); }`;
  const exe = path.join(WORK, "run", folder, "program");
  fs.mkdirSync(path.dirname(exe), { recursive: true });
  compile("run", files, folder, main, ["-o", exe, ...(family ? [`-DFAMILY_${family.toUpperCase()}`] : [])]);
  return execFileSync(exe, { encoding: "utf8" }).trim().split("\n");
}

/** Only compiles it, with what the family's core adds. */
export function checkOnHost(name: string, files: readonly File[], folder: string, family: string) {
  compile(name, files, folder, "int main() { setup(); loop(); }", [
    "-fsyntax-only",
    `-DFAMILY_${family.toUpperCase()}`,
  ]);
}
