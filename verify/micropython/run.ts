import fs from "node:fs";
import type { BusPart } from "../../src/core/bench/models/types";
import type { FirmwareFile } from "../../src/core/firmware";
import type { Lines } from "../parts/lines";

interface MicroPython {
  runPython(code: string): unknown;
  FS: { mkdirTree(path: string): void; writeFile(path: string, data: string): void };
}
const here = (name: string) => fs.readFileSync(new URL(name, import.meta.url), "utf8");

/** Parts of the bench that answer on the buses, by address; time is the program's. */
export type Bus = ReadonlyMap<number, BusPart>;

const hex = (bytes: readonly number[]) => bytes.map((b) => b.toString(16).padStart(2, "0")).join("");
const bytesOf = (text: string) => (text.match(/../g) ?? []).map((x) => parseInt(x, 16));
/** What the stand-in for the machine module asks. */
const bridge = (bus: Bus) => ({
  write: (address: number, data: string, now: number) => bus.get(address)!.write(bytesOf(data), now),
  read: (address: number, n: number, now: number) => hex(bus.get(address)!.read(n, now) ?? []),
});

/** A part of the bench on lines of its own: which line hangs on which pin, by number. */
export interface OnLines {
  lines?: Lines;
  part: BusPart;
  /** Codes of what hangs on one wire, in the order in which a search may find them. */
  codes?: readonly (readonly number[])[];
  at: ReadonlyMap<number, string>;
}
/** What the stand-ins for pins, pulses and converters ask; times are in microseconds. */
const lineBridge = (x: OnLines | undefined) => ({
  drive: (pin: number, level: number, us: number) =>
    x?.lines?.drive(x.at.get(pin) ?? "", level < 0 ? null : (level as 0 | 1), us),
  pulsed: (pin: number, Hz: number, duty: number, us: number) => x?.lines?.pulsed(x.at.get(pin) ?? "", Hz, duty, us),
  level: (pin: number, us: number) => (x?.lines ? x.lines.level(x.at.get(pin) ?? "", us) : 0),
  falls: (pin: number, us: number) => (x?.lines ? x.lines.falls(x.at.get(pin) ?? "", us).join(" ") : ""),
  clocked: (sck: number, mosi: number, data: string, us: number) => {
    const drive = (pin: number, level: 0 | 1) => x?.lines?.drive(x.at.get(pin) ?? "", level, us);
    for (const byte of bytesOf(data))
      for (let bit = 0x80; bit; bit >>= 1) {
        drive(mosi, byte & bit ? 1 : 0);
        drive(sck, 1);
        drive(sck, 0);
      }
  },
  /** The same byte out again and again, and what comes back beside it. */
  swapped: (sck: number, mosi: number, miso: number, out: string, n: number, us: number) => {
    const drive = (pin: number, level: 0 | 1) => x?.lines?.drive(x.at.get(pin) ?? "", level, us);
    const byte = parseInt(out, 16);
    return hex(
      Array.from({ length: n }, () => {
        let got = 0;
        for (let bit = 0x80; bit; bit >>= 1) {
          drive(mosi, byte & bit ? 1 : 0);
          drive(sck, 1);
          if (x?.lines?.level(x.at.get(miso) ?? "", us)) got |= bit;
          drive(sck, 0);
        }
        return got;
      }),
    );
  },
  write: (data: string, now: number) => x?.part.write(bytesOf(data), now),
  there: () => x !== undefined,
  codes: () => (x?.codes ?? []).map(hex).join(" "),
  serial: (now: number) => hex(x?.part.serial?.(now) ?? []),
  read: (n: number, now: number) => hex(x?.part.read(n, now) ?? []),
});

export interface PythonRun {
  lines: string[];
  log: (string | number | null)[][];
}

/** Runs one generated program under the MicroPython port with a recording `machine` and a fast clock. */
export async function runProgram(
  files: FirmwareFile[],
  program: string,
  world: string,
  bus: Bus = new Map(),
  onLines?: OnLines,
): Promise<PythonRun> {
  (globalThis as unknown as { latticeBus: unknown }).latticeBus = bridge(bus);
  (globalThis as unknown as { latticeLines: unknown }).latticeLines = lineBridge(onLines);
  const log: PythonRun["log"] = [];
  (globalThis as unknown as { latticeLog: unknown }).latticeLog = (parcel: string) =>
    log.push(...(JSON.parse(parcel) as PythonRun["log"]));
  const { loadMicroPython } = (await import(
    "@micropython/micropython-webassembly-pyscript/micropython.mjs" as string
  )) as {
    loadMicroPython(o: object): Promise<MicroPython>;
  };
  const lines: string[] = [];
  const mp = await loadMicroPython({ linebuffer: true, stdout: (l: string) => lines.push(l), heapsize: 4_000_000 });
  mp.FS.mkdirTree("/prog/lib");
  for (const f of files) mp.FS.writeFile(`/prog/${f.path}`, f.text);
  mp.FS.writeFile("/prog/machine.py", here("./machine.py"));
  for (const name of ["clock", "onewire", "dht", "network", "socket"])
    mp.FS.writeFile(`/prog/${name}.py`, here(`./${name}.py`));
  mp.runPython(`
import sys
sys.path.insert(0, "/prog")
import clock, machine
sys.modules["time"] = clock
machine.WIRED.update((${[...(onLines?.at.keys() ?? [])].map((p) => `${p}, `).join("")}))
machine.MODELS.update((${[...bus.keys()].map((a) => `${a}, `).join("")}))
sys.modules["select"] = clock.Select
${world}
try:
    exec(open("/prog/${program}").read().replace("sys.stdin", "clock.STDIN"), {"__name__": "__main__", "clock": clock})
except clock.Done:
    print("CLOCK RAN OUT")
machine.hand_over()
`);
  return { lines, log };
}
