import { beforeAll, describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import type { Model, World } from "../src/core/bench/models/types";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { DEVICES } from "../src/core/firmware/devices";
import { machineOf } from "../src/core/firmware/devices/run";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { assign } from "../src/core/plan/assign";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileSketch, coreArchive, simulateWith } from "./avr/toolchain";
import { runProgram } from "./micropython/run";

/** One part on a board, its levels seen to. */
function planned(board: object, id: string): Circuit {
  const a = assign(make([board as never, USB, { ref: "M1", part: id, label: "Part" }]), catalogue);
  return circuitOf(a.project, catalogue);
}

/** What the device reads in a world by the interpreter: whole numbers, as every program must print them. */
function expected(m: Model, w: World): string {
  const d = DEVICES.find((x) => x.id === m.part)!;
  const machine = machineOf(d, m.make(w));
  for (let now = 0; !machine.fresh && now < 20_000; now += Math.max(1, machine.turn(now)));
  return d.out.map((q) => `${q.name}=${machine.out.get(q.name)}`).join(" ");
}

const address = (c: Circuit) =>
  parseInt(c.netlist.instance("M1")!.part.groups.find((g) => g.kind === "i2c")!.address!, 16);
const sensorLine = (lines: readonly string[]) => lines.find((l) => l.startsWith("YL1 sensor M1"));
const CASES = MODELS.map((m) => [m.part, m] as const);

describe("devices in MicroPython, against the bench's models", () => {
  it.each(CASES)("%s", async (id, m) => {
    const c = planned(BOARD3, id);
    const files = micropython.files(c);
    for (const w of m.worlds) {
      const r = await runProgram(files, "bringup.py", "clock.END[0] = 30_000", new Map([[address(c), m.make(w)]]));
      expect(sensorLine(r.lines), JSON.stringify(w)).toBe(`YL1 sensor M1 fresh=1 ${expected(m, w)} ok`);
      expect(r.lines.filter((l) => l.startsWith("YL1 done"))).toEqual([
        "YL1 done parts=1 proven=1 failed=0 unproven=0 ok",
      ]);
    }
    // The starter shows it on its line, again and again.
    const run = await runProgram(
      files,
      "main.py",
      "clock.END[0] = 14_000",
      new Map([[address(c), m.make(m.worlds[0]!)]]),
    );
    const said = run.lines.filter((l) => l.includes("running"));
    expect(said.length).toBeGreaterThan(5);
    expect(said.at(-1)).not.toContain("--");
  });
});

describe("devices in C++, run in simavr against the bench's models", () => {
  let bench = "";
  beforeAll(() => {
    coreArchive();
    bench = benchProgram();
  }, 240_000);
  it.each(CASES)("%s", async (id, m) => {
    const c = planned(BOARD5, id);
    const files = sketch.files(c);
    const { elf } = compileSketch(`device-${id.split("/")[1]}`, files, "bringup");
    for (const w of m.worlds) {
      const run = await simulateWith(bench, elf, 7.5, new Map([[address(c), m.make(w)]]), "YL1 done");
      expect(sensorLine(run.lines), JSON.stringify(w)).toBe(`YL1 sensor M1 fresh=1 ${expected(m, w)} ok`);
      expect(run.lines).toContain("YL1 done parts=1 proven=1 failed=0 unproven=0 ok");
    }
    expect(compileSketch(`device-${id.split("/")[1]}`, files, "starter").ram).toBeLessThan(1024);
  });
});
