import { beforeAll, describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import type { BusPart } from "../src/core/bench/models/types";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { crc8Low } from "../src/core/firmware/devices/run";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileC, compileSketch, coreArchive, simulateWith } from "./avr/toolchain";
import { runProgram } from "./micropython/run";
import { linesOf, onOneWires } from "./parts";

const MODEL = MODELS.find((m) => m.part === "module/ds18b20")!;
/** Codes whose bits part early, late, and in the last byte before their checksum; not in the order of the parts. */
const SERIALS = [
  [0x28, 0x05, 0x11, 0x22, 0x33, 0x44, 0x00],
  [0x28, 0x04, 0x11, 0x22, 0x33, 0x44, 0x80],
  [0x28, 0x04, 0x11, 0x22, 0x33, 0x44, 0x00],
];
const CODES = SERIALS.map((c) => [...c, crc8Low(c, 0x8c, 0)]);
const TEMPERATURES = [21.5, -3.25, 60.125];
/** By the order of their codes the first part of the plan is the third of these, and so on. */
const IN_ORDER = [60.125, -3.25, 21.5];

function project(board: object): Circuit {
  const probes = [1, 2, 3].map((n) => ({ ref: `M${n}`, part: "module/ds18b20", label: `Probe ${n}` }));
  const a = assign(
    make([
      board as never,
      board === BOARD3 || board === BOARD5 ? USB : { ref: "S1", part: "supply/usb-port" },
      ...probes,
    ]),
    catalogue,
  );
  const c = circuitOf(a.project, catalogue);
  expect(new Set([1, 2, 3].map((n) => linesOf(c, `M${n}`).get("DQ"))).size).toBe(1);
  return c;
}
const bench = (which = [0, 1, 2]) =>
  which.map((i) => ({ code: CODES[i]!, part: MODEL.make({ t_C: TEMPERATURES[i]! }, {}) }));
/** All of them as one part: who was called does and says what it was told. */
function asOne(parts: readonly { code: readonly number[]; part: BusPart }[]): BusPart {
  let called: BusPart[] = [];
  return {
    write(bytes, now) {
      const by = bytes[0] === 0x55 ? bytes.slice(1, 9) : null;
      called = parts.filter((p) => !by || p.code.every((v, i) => v === by[i])).map((p) => p.part);
      for (const p of called) p.write([0xcc, ...bytes.slice(by ? 9 : 1)], now);
      return true;
    },
    read: (n, now) => called.map((p) => p.read(n, now)!).reduce((a, b) => a.map((v, i) => v & b[i]!)),
  };
}
const sensors = (lines: readonly string[]) => lines.filter((l) => l.startsWith("YL1 sensor"));
const RIGHT = IN_ORDER.map((t, i) => `YL1 sensor M${i + 1} fresh=1 t_cC=${Math.trunc(t * 100)} ok`);

describe("three probes on one wire, told apart by their codes", () => {
  let exe = "";
  beforeAll(() => {
    coreArchive();
    exe = benchProgram();
  }, 240_000);
  const MEGA328 = { mcu: "atmega328p", clock_Hz: 8_000_000 };
  it("in MicroPython", async () => {
    const c = project(BOARD3);
    const parts = bench();
    const at = new Map([[findPin(c.netlist.instance("B1")!.part, linesOf(c, "M1").get("DQ")!)!.gpio!, "DQ"]]);
    const run = (codes: readonly (readonly number[])[]) =>
      runProgram(micropython.files(c), "bringup.py", "clock.END[0] = 20_000", new Map(), {
        part: asOne(parts),
        at,
        codes,
      });
    const r = await run(CODES);
    expect(sensors(r.lines)).toEqual(RIGHT);
    expect(r.lines).toContain(`YL1 code M1 is=${Buffer.from(CODES[2]!).toString("hex").toUpperCase()} info`);
    // One is missing: nobody knows who is who, and nothing is made up.
    expect(sensors((await run(CODES.slice(1))).lines)).toEqual(
      [1, 2, 3].map((n) => `YL1 sensor M${n} fresh=0 t_cC=0 fail`),
    );
  });
  it("in C++, in simavr", async () => {
    const c = project(BOARD5);
    const { elf } = compileSketch("one-wire", sketch.files(c), "bringup");
    const run = (which?: number[]) =>
      simulateWith(exe, elf, 16, new Map(), "YL1 done", { part: onOneWires(bench(which), "DQ"), at: linesOf(c, "M1") });
    const r = await run();
    expect(sensors(r.lines)).toEqual(RIGHT);
    expect(r.lines).toContain(`YL1 code M1 is=${Buffer.from(CODES[2]!).toString("hex").toUpperCase()} info`);
    expect(sensors((await run([0, 2])).lines).map((l) => l.split(" ").at(-1))).toEqual(["fail", "fail", "fail"]);
  });
  it("in plain C, in simavr", async () => {
    const c = project({ ref: "B1", part: "chip/atmega328p-dip28" });
    const { elf } = compileC("one-wire-c", avrC.files(c), "bringup", MEGA328.mcu, MEGA328.clock_Hz);
    const board = c.netlist.instance("B1")!.part;
    const at = new Map([...linesOf(c, "M1")].map(([l, pin]) => [l, findPin(board, pin)!.names!["avr-c"]!]));
    const r = await simulateWith(
      exe,
      elf,
      16,
      new Map(),
      "YL1 done",
      { part: onOneWires(bench(), "DQ"), at },
      [],
      MEGA328,
    );
    expect(sensors(r.lines)).toEqual(RIGHT);
  });
});
