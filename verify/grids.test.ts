import { describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { findPin } from "../src/core/parts/catalogue";
import { targetById } from "../src/core/firmware";
import { alikeParts, applySaving } from "../src/core/plan/savings";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { checkSketch } from "./avr/toolchain";
import { runProgram } from "./micropython/run";

/** Grids as the calculator puts them into a project, with their programs: compiled for an AVR, run under MicroPython. */
const GRIDS: [part: string, way: string, n: number][] = [
  ["discrete/button", "grid", 12],
  ["discrete/button", "grid-diodes", 9],
  ["discrete/led-red", "light-grid", 12],
  ["discrete/led-red", "charlie", 11],
];

function project(board: typeof BOARD3, part: string, way: string, n: number): Circuit {
  const parts = Array.from({ length: n }, (_, i) => ({ ref: `X${i + 1}`, part, label: `Place "${i + 1}"` }));
  const p = make([board, USB, ...parts]);
  const r = applySaving(p, catalogue, alikeParts(p, catalogue)[0]!, way);
  if (!r.ok) throw new Error(r.why);
  return circuitOf(r.project, catalogue);
}

describe("sketches of grids compile", () => {
  it.each(GRIDS)("%s as %s, %i", (part, way, n) => {
    const files = targetById("sketch")!.files(project(BOARD5, part, way, n));
    for (const folder of ["bringup", "starter"]) checkSketch(`grid-${way}`, files, folder, "atmega328p");
    expect(files.find((f) => f.path === "bringup/bringup.ino")!.text).toMatch(/YL1 (keys|lights)/);
  });
});

describe("MicroPython programs of grids run", () => {
  it.each(GRIDS)("%s as %s, %i: bring-up reports, only planned pins are opened", async (part, way, n) => {
    const c = project(BOARD3, part, way, n);
    const files = targetById("micropython")!.files(c);
    const r = await runProgram(files, "bringup.py", "clock.END[0] = 8000");
    const line = r.lines.find((l) => /^YL1 (keys|lights) /.test(l));
    expect(line).toMatch(new RegExp(`count=${n} .*(ok|info)$`));
    const gpio = (pin: string) => findPin(c.netlist.instance("B1")!.part, pin)!.gpio!;
    const OWN_LIGHT = 25;
    const plan = new Set([...c.netlist.bindings.map((x) => gpio(x.hostPin)), OWN_LIGHT]);
    const opened = new Set(r.log.flatMap((e) => (e[0] === "pin" ? [e[1]] : [])));
    expect(opened).toEqual(plan);
    const main = await runProgram(files, "main.py", "");
    expect(main.lines).toContain("CLOCK RAN OUT");
  });
});
