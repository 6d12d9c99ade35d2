import { beforeAll, describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import type { BusPart, World } from "../src/core/bench/models/types";
import { circuitOf } from "../src/core/circuit";
import { DEVICES } from "../src/core/firmware/devices";
import { driverParts } from "../src/core/firmware/pins";
import { sketch } from "../src/core/firmware/targets/sketch";
import { assign } from "../src/core/plan/assign";
import type { Rule } from "../src/core/project";
import { BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileSketch, coreArchive, simulateWith } from "./avr/toolchain";
import { linesOf, wirePart, type WirePart } from "./parts";
import { together } from "./parts/together";

const modelOf = (id: string) => MODELS.find((m) => m.part === id)!;

/** Parts on the 5 V board, with rules, and on the bench as they feel these worlds. */
function bench(list: readonly (readonly [ref: string, part: string, world: World])[], rules: Rule[] = []) {
  const parts = list.map(([ref, part]) => ({ ref, part, label: `Part ${ref}` }));
  const a = assign(make([BOARD5, USB, ...parts]), catalogue);
  const c = circuitOf({ ...a.project, rules }, catalogue);
  const wires = new Map<string, WirePart>();
  const models = new Map<string, BusPart>();
  const bus = new Map<number, BusPart>();
  const at = new Map<string, string>();
  for (const [ref, id, world] of list) {
    const p = driverParts(c, "B1", "sketch", (b) => b).find((x) => x.inst.ref === ref)!;
    const kind = DEVICES.find((d) => d.id === id);
    if (!kind) continue;
    const model = modelOf(id).make(world, { chain: p.chain, options: p.options });
    models.set(ref, model);
    const wire = wirePart(c, ref, kind.of(p), model, p.chain);
    if (wire) {
      wires.set(ref, wire);
      for (const [line, pin] of linesOf(c, ref)) at.set(`${ref}.${line}`, pin);
    } else bus.set(parseInt(c.netlist.instance(ref)!.part.groups.find((g) => g.kind === "i2c")!.address!, 16), model);
  }
  return { c, models, bus, lines: { part: together(wires), at } };
}
describe("many parts in one program, in simavr", () => {
  let exe = "";
  beforeAll(() => {
    coreArchive();
    exe = benchProgram();
  }, 240_000);
  it("on every kind of wire, two of them on the same clock and data lines, all read right", async () => {
    const x = bench([
      ["M1", "module/ds18b20", { t_C: 21.4375 }],
      ["M2", "module/max31855", { t_C: -40.5, chip_C: 5.25 }],
      ["M3", "module/mcp3008", { c0: 5, c1: 1023, c2: 512, c3: 513, c4: 85, c5: 682, c6: 300, c7: 7 }],
      ["M4", "module/sht31", { t_C: -12.5, rh_pct: 91.7 }],
      ["M5", "module/dht22", { t_C: -10.1, rh_pct: 91.2 }],
      ["M6", "discrete/potentiometer", { pct: 37 }],
    ]);
    const { elf, ram } = compileSketch("together", sketch.files(x.c), "bringup");
    expect(ram).toBeLessThan(1400);
    const r = await simulateWith(exe, elf, 12, x.bus, "YL1 done", x.lines);
    const said = (ref: string) => r.lines.find((l) => l.startsWith(`YL1 sensor ${ref} `));
    expect(said("M1")).toBe("YL1 sensor M1 fresh=1 t_cC=2143 ok");
    expect(said("M2")).toContain("t_cC=-4050 chip_cC=525 ok");
    expect(said("M3")).toContain("c0=5 c1=1023 c2=512 c3=513 c4=85 c5=682 c6=300 c7=7 info");
    expect(said("M4")).toMatch(/t_cC=-125\d rh_c=91\d\d ok/);
    expect(said("M5")).toContain("t_cC=-1010 rh_c=9120 ok");
    expect(said("M6")).toContain("pct=3");
  }, 60_000);
  it("an address alone is no proof of what a display shows", async () => {
    const x = bench([["M1", "module/ht16k33-digits", {}]]);
    const { elf } = compileSketch("address", sketch.files(x.c), "bringup");
    const r = await simulateWith(exe, elf, 8, x.bus, "YL1 done", x.lines);
    expect(r.lines).toContain("YL1 done parts=1 proven=0 failed=0 unproven=1 info");
  }, 60_000);
  it("an arm follows a distance: counted in 32 bits, though the distance is kept in 16", async () => {
    const x = bench(
      [
        ["M1", "module/hc-sr04", { cm: 390 }],
        ["M2", "module/servo-small", {}],
      ],
      [{ when: { ref: "M1", out: "cm" }, do: { ref: "M2", act: "follow" } }],
    );
    const { elf } = compileSketch("follow", sketch.files(x.c), "starter");
    await simulateWith(exe, elf, 2, x.bus, undefined, x.lines);
    // (390 - 2) of 398 centimetres, of 180 degrees: their product leaves 16 bits, and would be far off. The echo is timed to a
    // centimetre or two, the pulse to what an interrupt takes.
    expect(Math.abs(x.models.get("M2")!.is!(2000).angle_deg! - 175)).toBeLessThan(6);
  }, 60_000);
});
