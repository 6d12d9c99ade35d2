import { execFileSync, spawn, spawnSync } from "node:child_process";
import fs from "node:fs";
import path from "node:path";
import readline from "node:readline";
import type { BusPart } from "../../src/core/bench/models/types";
import type { FirmwareFile } from "../../src/core/firmware";
import type { Reply, WirePart } from "../parts";
import { WORK } from "../work-folder";
import { CORE, coreVariant } from "./core-variant";

const CPU = ["-mmcu=atmega328p", "-DF_CPU=16000000L", "-DARDUINO=10819", "-DARDUINO_ARCH_AVR"];
const SYSTEM = [
  `${CORE}/cores/arduino`,
  `${CORE}/variants/standard`,
  `${CORE}/libraries/Wire/src`,
  `${CORE}/libraries/SPI/src`,
  `${CORE}/libraries/HID/src`,
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
  /** How much of the chip's time was slept. */
  asleep_ms: number;
  i2cBytes: number;
}

function benchRun(out: string): BenchRun {
  const text = out.replace(/\r/g, "");
  const toggles = new Map<string, number>();
  for (const m of text.matchAll(/^TOGGLES (P[BCD]\d) (\d+)$/gm)) toggles.set(m[1]!, Number(m[2]));
  return {
    lines: text.split("\n").filter((l) => l && !/^(TOGGLES|I2C_BYTES|ASLEEP|Loaded) /.test(l)),
    toggles,
    asleep_ms: Number(/^ASLEEP (\d+)$/m.exec(text)?.[1] ?? 0),
    i2cBytes: Number(/^I2C_BYTES (\d+)$/m.exec(text)?.[1] ?? 0),
  };
}

/** Compiles plain C with every warning an error, as the Makefile does. Sizes are in bytes. */
export function compileC(
  name: string,
  files: FirmwareFile[],
  program: string,
  mcu: string,
  clock_Hz: number,
): { elf: string; flash: number; ram: number } {
  const dir = path.join(WORK, "plain", name);
  fs.mkdirSync(dir, { recursive: true });
  for (const f of files) fs.writeFileSync(path.join(dir, path.basename(f.path)), f.text);
  run("make", ["-s", "-C", dir, `${program}.hex`, "CC=avr-gcc -Werror", `MCU=${mcu}`, `F_CPU=${clock_Hz}UL`]);
  const elf = path.join(dir, `${program}.elf`);
  const line = run("avr-size", [elf]).split("\n")[1]!.trim().split(/\s+/).map(Number);
  return { elf, flash: line[0]! + line[1]!, ram: line[1]! + line[2]! };
}

/** Runs a program of another chip, at its clock. */
export const simulateChip = (
  bench: string,
  elf: string,
  seconds: number,
  parts: string[],
  mcu: string,
  clock_Hz: number,
) =>
  benchRun(
    execFileSync(bench, [elf, String(seconds), ...parts], {
      encoding: "utf8",
      stdio: ["ignore", "pipe", "pipe"],
      env: { ...process.env, MCU: mcu, F_CPU: String(clock_Hz) },
    }),
  );

/** Runs an ELF on the simulated bench for some seconds of simulated time. */
export const simulate = (bench: string, elf: string, seconds: number, parts: string[] = []): BenchRun =>
  benchRun(run(bench, [elf, String(seconds), ...parts]));

/** Parts of the bench that answer on the bus, by address; time is that of the simulated chip. */
type Bus = ReadonlyMap<number, BusPart>;
/** Most that a program asks for at once: the core's buffer. */
const MOST_READ = 32;

/** What stands behind the bench's questions: messages are put together, and handed to the part when they end. */
function answers(bus: Bus) {
  let out: number[] | null = null;
  let ready: readonly number[] = [];
  let taken = 0;
  const ASKED: Record<string, (address: number, b: number, now: number) => number> = {
    S: (address, read, now) => {
      out = null;
      taken = 0;
      if (!read) out = [];
      else {
        const got = bus.get(address)!.read(MOST_READ, now);
        if (!got) return 0;
        ready = got;
      }
      return 1;
    },
    W: (_a, byte) => {
      out?.push(byte);
      return 1;
    },
    R: () => ready[taken++] ?? 0xff,
    P: (address, _b, now) => {
      if (out?.length) bus.get(address)!.write(out, now);
      out = null;
      return 1;
    },
  };
  return (line: string) => {
    const [what, a, b, us] = line.slice(1).split(" ");
    return ASKED[what!]!(Number(a), Number(b), Number(us) / 1000);
  };
}

/** A part on lines of its own, and which pin of the long 5 V board each hangs on. */
export interface OnLines {
  part: WirePart;
  at: ReadonlyMap<string, string>;
}
/** Ports of that board's pins. */
const portOf = (pin: string): string => {
  // A chip's pins are called by their ports.
  if (/^P[A-D]\d$/.test(pin)) return pin;
  const n = Number(pin.slice(1));
  if (pin.startsWith("A")) return `PC${n}`;
  return n < 8 ? `PD${n}` : `PB${n - 8}`;
};
/** What stands behind the bench's questions about lines; times come in tenths of microseconds. */
function lineAnswers({ part, at }: OnLines) {
  const names = [...at.keys()];
  const coded = (all: readonly Reply[]) => {
    // A pin that the plan leaves free hangs nowhere.
    const list = all.filter((r) => at.has(r.line));
    return [
      list.length,
      ...list.map((r) => {
        const line = names.indexOf(r.line);
        if ("mV" in r) return `${100 + Number(/\d+$/.exec(at.get(r.line)!)![0])} ${r.mV} 0`;
        return "look_us" in r ? `${line} -1 ${r.look_us}` : `${line} ${r.level} ${r.in_us ?? 0}`;
      }),
    ].join(" ");
  };
  const ASKED: Record<string, (line: string, level: 0 | 1, us: number) => readonly Reply[]> = {
    B: () => part.start(),
    N: (line, level, us) => (part.hears.includes(line) ? part.change(line, level, us) : []),
    L: (line, level, us) => part.look?.(line, level, us) ?? [],
  };
  return {
    args: names.map((l) => `wire:${portOf(at.get(l)!)}:${part.pulledUp?.includes(l) ? "up" : "no"}`),
    answer: (text: string): string | null => {
      const [what, line, level, tenths] = text.slice(1).split(" ");
      return what! in ASKED
        ? coded(ASKED[what!]!(names[Number(line)]!, Number(level) as 0 | 1, Number(tenths) / 10))
        : null;
    },
  };
}

/** The same with parts of the bench on the bus or on lines; ends early after a line that begins with `until`. */
export function simulateWith(
  bench: string,
  elf: string,
  seconds: number,
  bus: Bus,
  until?: string,
  onLines?: OnLines,
  more: string[] = [],
  chip?: { mcu: string; clock_Hz: number },
): Promise<BenchRun> {
  const ask = answers(bus);
  const lines = onLines ? lineAnswers(onLines) : null;
  const child = spawn(
    bench,
    [elf, String(seconds), ...[...bus.keys()].map((a) => `pipe:${a.toString(16)}`), ...(lines?.args ?? []), ...more],
    { env: { ...process.env, ...(chip && { MCU: chip.mcu, F_CPU: String(chip.clock_Hz) }) } },
  );
  let text = "";
  const ends = until === undefined ? null : new RegExp(`^${until}.*\\r?\\n`, "m");
  let ended = false;
  child.stdout.setEncoding("utf8").on("data", (t: string) => {
    text += t;
    if (ended || !ends?.test(text)) return;
    ended = true;
    child.kill();
  });
  readline.createInterface({ input: child.stderr }).on("line", (line) => {
    if (line.startsWith("?")) child.stdin.write(`${lines?.answer(line) ?? ask(line)}\n`);
  });
  return new Promise((resolve, reject) => {
    child.on("error", reject);
    // It may be gone before it hears the last answer.
    child.stdin.on("error", () => undefined);
    child.on("close", (code) =>
      code === 0 || ended ? resolve(benchRun(text)) : reject(new Error(`the bench ended with ${code}`)),
    );
  });
}
