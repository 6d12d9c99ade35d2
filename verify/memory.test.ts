import { describe, expect, it } from "vitest";
import { circuitOf } from "../src/core/circuit";
import { roomOf } from "../src/core/firmware/memory/room";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { CHIPS } from "../src/core/firmware/targets/avr-c/chips";
import { sketch } from "../src/core/firmware/targets/sketch";
import { assign } from "../src/core/plan/assign";
import { catalogue, make } from "../src/core/testing";
import { compileC, compileSketch } from "./avr/toolchain";

const PARTS = catalogue.parts.filter((p) => !p.board && p.bringup && p.pins.some((x) => x.need)).map((p) => p.id);
/** A stream of numbers that is the same every time. */
function numbers(seed: number) {
  let s = seed;
  return (below: number) => {
    s = (s * 1103515245 + 12345) & 0x7fffffff;
    return Math.floor((s / 0x80000000) * below);
  };
}

/** Some parts that can be planned together. */
function project(host: string, n: number, seed: number) {
  const next = numbers(seed);
  let list: string[] = [];
  for (let k = 0; k < 3 * n && list.length < n; k++) {
    const more = [...list, PARTS[next(PARTS.length)]!];
    const a = plan(host, more);
    if (a) list = more;
  }
  return plan(host, list)!;
}
function plan(host: string, list: readonly string[]) {
  const instances = list.map((part, i) => ({ ref: `M${i + 1}`, part }));
  const supply = { ref: "S1", part: "supply/usb-port" };
  const a = assign(make([{ ref: "B1", part: host }, supply, ...instances] as never), catalogue);
  return a.status === "infeasible" ? null : circuitOf(a.project, catalogue);
}

/** Off by no more than a seventh and a little. */
const near = (used: number, real: number, slack: number) => {
  expect(used).toBeGreaterThan(real * 0.9 - slack);
  expect(used).toBeLessThan(real * 1.15 + slack);
};
const CASES = (process.env.ALL ? [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12] : [1, 2, 3]).map((seed) => [seed] as const);

describe("the memory that a program is said to take, against the compiler", () => {
  it.each(CASES)("plain C, mixture %i", (seed) => {
    const host = ["chip/atmega328p-dip28", "chip/atmega32a-dip40"][seed % 2]!;
    const c = project(host, 2 + (seed % 5), seed);
    const b = c.netlist.instance("B1")!.part.board!;
    const built = ["bringup", "main"].map((k) => compileC("memory", avrC.files(c), k, CHIPS[b.chip]!.mcu, b.clock_Hz));
    const r = roomOf(c, "B1", "avr-c")!;
    near(r.flash.used, Math.max(...built.map((x) => x.flash)), 350);
    near(r.ram.used, Math.max(...built.map((x) => x.ram)), 40);
  });
  it.each(CASES)("sketches, mixture %i", (seed) => {
    const c = project("board/atmega328p-long", 2 + (seed % 6), seed + 100);
    const built = ["bringup", "starter"].map((k) => compileSketch("memory", sketch.files(c), k));
    const r = roomOf(c, "B1", "sketch")!;
    near(r.flash.used, Math.max(...built.map((x) => x.flash)), 900);
    near(r.ram.used, Math.max(...built.map((x) => x.ram)), 80);
  });
});
