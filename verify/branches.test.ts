import { beforeAll, describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import type { BusPart } from "../src/core/bench/models/types";
import { circuitOf } from "../src/core/circuit";
import { gaps } from "../src/core/firmware/gaps";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { assign } from "../src/core/plan/assign";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileSketch, coreArchive, simulateWith } from "./avr/toolchain";
import { runProgram } from "./micropython/run";

const modelOf = (id: string) => MODELS.find((m) => m.part === id)!;
const WORLDS = [
  { t_C: -12.5, rh_pct: 91.7 },
  { t_C: 21.3, rh_pct: 40.2 },
  { t_C: 60.1, rh_pct: 5.5 },
];

/** A bus switch with a sensor on each of three branches, all of one address: only the branch that is open is heard. */
function bench(board: object) {
  const parts = [
    { ref: "M1", part: "module/tca9548a" },
    ...[0, 1, 2].map((i) => ({ ref: `M${i + 2}`, part: "module/sht31", label: `Air ${i}` })),
  ];
  const links = [0, 1, 2].flatMap((i): [string, string][] => [
    [`M${i + 2}.SDA`, `M1.SD${2 * i + 1}`],
    [`M${i + 2}.SCL`, `M1.SC${2 * i + 1}`],
  ]);
  const c = circuitOf(assign(make([board as never, USB, ...parts], links), catalogue).project, catalogue);
  const mux = modelOf("module/tca9548a").make({}, {});
  const behind = WORLDS.map((w) => modelOf("module/sht31").make(w, {}));
  const open = (now: number): BusPart | null => {
    const bits = mux.read(1, now)![0]!;
    const heard = behind.filter((_, i) => (bits >> (2 * i + 1)) & 1);
    if (heard.length > 1) throw new Error("two parts of one address are heard at once");
    return heard[0] ?? null;
  };
  const routed: BusPart = {
    write: (b, now) => open(now)?.write(b, now) ?? false,
    read: (n, now) => open(now)?.read(n, now) ?? null,
  };
  return { c, bus: new Map([[0x70, mux] as const, [0x44, routed] as const]), mux };
}
const readings = (lines: readonly string[]) =>
  [2, 3, 4].map((n) => /t_cC=(-?\d+)/.exec(lines.find((l) => l.startsWith(`YL1 sensor M${n} `)) ?? "")?.[1]);
const near = (got: readonly (string | undefined)[]) =>
  got.every((v, i) => Math.abs(Number(v) - 100 * WORLDS[i]!.t_C) <= 2);

describe("sensors of one address on the branches of a bus switch", () => {
  beforeAll(() => {
    coreArchive();
  }, 240_000);
  it("are all read in simavr, and no branch stays open", async () => {
    const x = bench(BOARD5);
    expect(gaps(x.c)).toEqual([]);
    const files = sketch.files(x.c);
    const { elf } = compileSketch("branches", files, "bringup");
    const r = await simulateWith(benchProgram(), elf, 9, x.bus, "YL1 done", undefined);
    expect(near(readings(r.lines)), r.lines.join("\n")).toBe(true);
    expect(r.lines).toContain("YL1 done parts=4 proven=4 failed=0 unproven=0 ok");
    expect(x.mux.read(1, 9000)).toEqual([0]);
    compileSketch("branches", files, "starter");
  }, 60_000);
  it("are all read in MicroPython, and the starter tells all of them", async () => {
    const x = bench(BOARD3);
    expect(gaps(x.c)).toEqual([]);
    const files = micropython.files(x.c);
    const up = await runProgram(files, "bringup.py", "clock.END[0] = 9000", x.bus);
    expect(near(readings(up.lines)), up.lines.join("\n")).toBe(true);
    expect(up.lines).toContain("YL1 done parts=4 proven=4 failed=0 unproven=0 ok");
    const main = await runProgram(files, "main.py", "clock.END[0] = 9000", x.bus);
    const said = main.lines.filter((l) => l.includes("running")).at(-1)!;
    for (const w of WORLDS) expect(said).toContain(w.t_C.toFixed(1).slice(0, -1));
    expect(said).not.toContain("--");
  }, 60_000);
});
