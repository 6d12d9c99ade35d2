import { execFileSync, spawnSync } from "node:child_process";
import fs from "node:fs";
import path from "node:path";
import type { FirmwareFile } from "../../src/core/firmware";
import { CORE, coreVariant } from "./core-variant";

const WORK = path.resolve(import.meta.dirname, "../../.check");
const CPU = ["-mmcu=atmega328p", "-DF_CPU=16000000L", "-DARDUINO=10819", "-DARDUINO_ARCH_AVR"];
const SYSTEM = [
  `${CORE}/cores/arduino`,
  `${CORE}/variants/standard`,
  `${CORE}/libraries/Wire/src`,
  `${CORE}/libraries/SPI/src`,
].flatMap((d) => ["-I", d]);
const OUT = ["-Os", "-ffunction-sections", "-fdata-sections", "-flto"];
const CXX = ["-std=gnu++11", "-fno-exceptions", "-fpermissive", "-fno-threadsafe-statics"];

const run = (cmd: string, args: string[]) =>
  execFileSync(cmd, args, { encoding: "utf8", stdio: ["ignore", "pipe", "pipe"] });

/** Compiles the packaged core and Wire once into an archive. */
export function coreArchive(): string {
  const dir = path.join(WORK, "avr-core");
  const archive = path.join(dir, "core.a");
  if (fs.existsSync(archive)) return archive;
  fs.mkdirSync(dir, { recursive: true });
  const core = fs.readdirSync(`${CORE}/cores/arduino`).map((f) => `${CORE}/cores/arduino/${f}`);
  const wire = [`${CORE}/libraries/Wire/src/Wire.cpp`, `${CORE}/libraries/Wire/src/utility/twi.c`];
  const objects = [...core, ...wire]
    .filter((f) => /\.(c|cpp|S)$/.test(f))
    .map((f) => {
      const o = path.join(dir, `${path.basename(f)}.o`);
      const lang = f.endsWith(".cpp") ? CXX : f.endsWith(".S") ? ["-x", "assembler-with-cpp"] : ["-std=gnu11"];
      // This toolchain's float.h lacks the macro that the core's string class asks for.
      run(f.endsWith(".cpp") ? "avr-g++" : "avr-gcc", [
        "-c",
        "-w",
        ...CPU,
        ...OUT,
        ...lang,
        "-DDECIMAL_DIG=17",
        ...SYSTEM,
        "-o",
        o,
        f,
      ]);
      return o;
    });
  run("avr-gcc-ar", ["rcs", archive, ...objects]);
  return archive;
}

/** Compiles one sketch with every warning on; a warning that points into our files is an error. Sizes are in bytes. */
export function compileSketch(
  name: string,
  files: FirmwareFile[],
  folder: string,
): { elf: string; flash: number; ram: number } {
  const dir = path.join(WORK, "sketches", name, folder);
  fs.mkdirSync(dir, { recursive: true });
  for (const f of files.filter((x) => x.path.startsWith(`${folder}/`)))
    fs.writeFileSync(path.join(dir, path.basename(f.path)), f.text);
  const elf = path.join(dir, `${folder}.elf`);
  const built = spawnSync(
    "avr-g++",
    [
      ...CPU,
      ...OUT,
      ...CXX.filter((x) => x !== "-fpermissive"),
      "-Wall",
      "-Wextra",
      "-DDECIMAL_DIG=17",
      ...SYSTEM,
      "-x",
      "c++",
      path.join(dir, `${folder}.ino`),
      "-x",
      "none",
      "-Wl,--gc-sections",
      coreArchive(),
      "-lm",
      "-o",
      elf,
    ],
    { encoding: "utf8" },
  );
  const complaints = built.stderr.split("\n").filter((l) => l.includes(dir) && /(warning|error):/.test(l));
  if (built.status !== 0 || complaints.length) throw new Error(complaints.join("\n") || built.stderr);
  const line = run("avr-size", [elf]).split("\n")[1]!.trim().split(/\s+/).map(Number);
  return { elf, flash: line[0]! + line[1]!, ram: line[1]! + line[2]! };
}

/** Compiles one sketch for any AVR board without linking it; a warning that points into our files is an error. */
export function checkSketch(name: string, files: FirmwareFile[], folder: string, mcu: string) {
  const dir = path.join(WORK, "sketches", name, folder);
  fs.mkdirSync(dir, { recursive: true });
  for (const f of files.filter((x) => x.path.startsWith(`${folder}/`)))
    fs.writeFileSync(path.join(dir, path.basename(f.path)), f.text);
  const includes = SYSTEM.map((x) => x.replace("variants/standard", `variants/${coreVariant(mcu)}`));
  const built = spawnSync(
    "avr-g++",
    [
      "-c",
      `-mmcu=${mcu}`,
      "-DF_CPU=16000000L",
      "-DARDUINO=10819",
      "-DARDUINO_ARCH_AVR",
      ...(mcu === "atmega32u4" ? ["-DUSB_VID=0x2341", "-DUSB_PID=0x8036"] : []),
      "-Os",
      ...CXX.filter((x) => x !== "-fpermissive"),
      "-Wall",
      "-Wextra",
      "-DDECIMAL_DIG=17",
      ...includes,
      "-x",
      "c++",
      path.join(dir, `${folder}.ino`),
      "-o",
      path.join(dir, `${folder}.o`),
    ],
    { encoding: "utf8" },
  );
  const complaints = built.stderr.split("\n").filter((l) => l.includes(dir) && /(warning|error):/.test(l));
  if (built.status !== 0 || complaints.length) throw new Error(complaints.join("\n") || built.stderr);
}

/** Builds the simulated bench from its C source. */
export function benchProgram(): string {
  const out = path.join(WORK, "bench");
  fs.mkdirSync(WORK, { recursive: true });
  run("gcc", [
    "-O2",
    "-Wall",
    "-Wextra",
    "-Werror",
    "-o",
    out,
    path.join(import.meta.dirname, "bench.c"),
    "-lsimavr",
    "-lelf",
  ]);
  return out;
}

export interface BenchRun {
  lines: string[];
  toggles: Map<string, number>;
  i2cBytes: number;
}

/** Runs an ELF on the simulated bench for some seconds of simulated time. */
export function simulate(bench: string, elf: string, seconds: number, parts: string[] = []): BenchRun {
  const text = run(bench, [elf, String(seconds), ...parts]).replace(/\r/g, "");
  const toggles = new Map<string, number>();
  for (const m of text.matchAll(/^TOGGLES (P[BCD]\d) (\d+)$/gm)) toggles.set(m[1]!, Number(m[2]));
  return {
    lines: text.split("\n").filter((l) => l && !/^(TOGGLES|I2C_BYTES) /.test(l)),
    toggles,
    i2cBytes: Number(/^I2C_BYTES (\d+)$/m.exec(text)?.[1] ?? 0),
  };
}
