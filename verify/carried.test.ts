import { beforeAll, describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import type { As, BusPart } from "../src/core/bench/models/types";
import { circuitOf } from "../src/core/circuit";
import { worksAnywhere } from "../src/core/firmware/carriers";
import { DEVICES, wired } from "../src/core/firmware/devices";
import { machineOf } from "../src/core/firmware/devices/run";
import { gaps } from "../src/core/firmware/gaps";
import { driverParts } from "../src/core/firmware/pins";
import { micropython } from "../src/core/firmware/targets/micropython";
import { restOf } from "../src/core/firmware/rest";
import { sketch } from "../src/core/firmware/targets/sketch";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import type { Rule } from "../src/core/project";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileSketch, coreArchive, simulateWith } from "./avr/toolchain";
import { runProgram } from "./micropython/run";
import { linesOf, wirePart } from "./parts";
import { Lines } from "./parts/lines";

/** Parts that carry others: where a light hangs, where a contact, and the bits of both. */
const CARRIERS = [
  { id: "module/pcf8574", light: "P6", lit: 1 << 6, key: "P1", pressed: 1 << 1 },
  { id: "module/mcp23017", light: "PB3", lit: 1 << 11, key: "PA2", pressed: 1 << 2 },
  { id: "module/74hc595", light: "QC", lit: 1 << 2, key: null, pressed: 0 },
  { id: "module/74hc165", light: null, lit: 0, key: "F", pressed: 1 << 5 },
] as const;
type Carrier = (typeof CARRIERS)[number];

/** A light and a contact, each on the carrier where it has room for one and on the board else; the contact works the light. */
function bench(board: object, k: Carrier, down: boolean) {
  const parts = [
    { ref: "M1", part: k.id },
    { ref: "D1", part: "discrete/led-red", label: "Lamp" },
    // A shift register has no pull-ups of its own.
    {
      ref: "SW1",
      part: "discrete/button",
      label: "Go",
      ...(k.id === "module/74hc165" && { companions: { pullUp: { ohm: 10_000 } } }),
    },
  ];
  // They stay there, though a pin of the board would be cheaper.
  const links = [
    ...(k.light ? [{ from: "D1.A", to: `M1.${k.light}`, locked: true }] : []),
    ...(k.key ? [{ from: "SW1.1", to: `M1.${k.key}`, locked: true }] : []),
  ];
  const rules: Rule[] = [{ when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "D1", act: "on" } }];
  const plan = assign(make([board as never, USB, ...parts], [], { links }), catalogue).project;
  const c = circuitOf({ ...plan, rules }, catalogue);
  const p = driverParts(c, "B1", "sketch", (b) => b).find((x) => x.inst.ref === "M1")!;
  const as: As = { chain: 1, outs: p.outs ?? 0, rests: p.rests ?? 0 };
  // A contact to ground reads low while it is held.
  const bits = 0xffff & (down ? ~k.pressed : ~0);
  const part = MODELS.find((m) => m.part === k.id)!.make({ bits: k.id.includes("mcp") ? bits : bits & 255 }, as);
  const wire = wirePart(c, "M1", DEVICES.find((d) => d.id === k.id)!.of(p), part, 1);
  const address = c.netlist.instance("M1")!.part.groups.find((g) => g.kind === "i2c")?.address;
  const bus = new Map(address ? [[parseInt(address, 16), part] as const] : []);
  const lit = () => {
    const is = part.is!(0);
    return ((is.out ?? is.bits!) & k.lit) !== 0;
  };
  return { c, part, wire, bus, lit, p };
}

describe.each(CARRIERS)("a light and a contact on $id", (k) => {
  beforeAll(() => {
    coreArchive();
  }, 240_000);
  it("are worked in simavr as if they hung on the board", async () => {
    const x = bench(BOARD5, k, false);
    expect(gaps(x.c)).toEqual([]);
    const files = sketch.files(x.c);
    const name = `carried-${k.id.split("/")[1]}`;
    const exe = benchProgram();
    const { elf } = compileSketch(name, files, "starter");
    compileSketch(name, files, "bringup");
    for (const down of [false, true]) {
      const y = bench(BOARD5, k, down);
      const lines = y.wire ? { part: y.wire, at: linesOf(y.c, "M1") } : undefined;
      const r = await simulateWith(exe, elf, 2.5, y.bus, undefined, lines);
      if (k.key) expect(r.lines.some((l) => l.includes("Go pressed"))).toBe(down);
      if (k.light && k.key) expect(y.lit()).toBe(down);
    }
  }, 60_000);
  it("are worked in MicroPython, and blink or are watched in bring-up", async () => {
    for (const down of [false, true]) {
      const y = bench(BOARD3, k, down);
      expect(gaps(y.c)).toEqual([]);
      const board = y.c.netlist.instance("B1")!.part;
      const at = new Map([...linesOf(y.c, "M1")].map(([line, pin]) => [findPin(board, pin)!.gpio!, line] as const));
      const lines = y.wire ? { lines: new Lines(y.wire), part: y.part, at } : undefined;
      const files = micropython.files(y.c);
      const run = (program: string) => runProgram(files, program, "clock.END[0] = 4000", y.bus, lines);
      const main = await run("main.py");
      if (k.key) expect(main.lines.some((l) => l.includes("Go pressed"))).toBe(down);
      if (k.light && k.key) expect(y.lit()).toBe(down);
      const up = await run("bringup.py");
      if (k.light) expect(up.lines).toContain(`YL1 gpio D1 pin=M1.${k.light} blink=3 info`);
      if (k.key)
        expect(up.lines.find((l) => l.startsWith("YL1 gpio SW1"))).toBe(
          `YL1 gpio SW1 pin=M1.${k.key} level=${down ? 0 : 1} want=1 ${down ? "fail" : "info"}`,
        );
    }
  }, 60_000);
});

describe("a light on the second of two registers in a chain", () => {
  it("is the bit behind those of the first", async () => {
    const parts = [
      { ref: "M1", part: "module/74hc595" },
      { ref: "M2", part: "module/74hc595" },
      { ref: "D1", part: "discrete/led-red", label: "Lamp" },
      { ref: "SW1", part: "discrete/button", label: "Go" },
    ];
    const links = [
      { from: "D1.A", to: "M2.QC", locked: true },
      { from: "M2.SER", to: "M1.QH'", locked: true },
    ];
    const rules: Rule[] = [{ when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "D1", act: "on" } }];
    const plan = assign(make([BOARD3, USB, ...parts], [], { links }), catalogue).project;
    const c = circuitOf({ ...plan, rules }, catalogue);
    expect(gaps(c)).toEqual([]);
    const ps = driverParts(c, "B1", "micropython", (b) => b);
    const first = ps.find((p) => p.chain === 2)!;
    const part = MODELS.find((m) => m.part === "module/74hc595")!.make({}, { chain: 2 });
    const wire = wirePart(c, first.inst.ref, DEVICES.find((d) => d.id === "module/74hc595")!.of(first), part, 2)!;
    const board = c.netlist.instance("B1")!.part;
    const gpio = (pin: string) => findPin(board, pin)!.gpio!;
    const at = new Map([...linesOf(c, first.inst.ref)].map(([line, pin]) => [gpio(pin), line] as const));
    const key = gpio(linesOf(c, "SW1").get("1")!);
    for (const level of [1, 0]) {
      const lines = { lines: new Lines(wire), part, at };
      const world = `clock.END[0] = 3000\nmachine.LEVELS[${key}] = ${level}`;
      await runProgram(micropython.files(c), "main.py", world, new Map(), lines);
      // The light hangs on the piece that was chained behind, or on the one beside the board, as it was planned.
      expect(part.is!(0).bits).toBe(level ? 0 : 4 << (first.inst.ref === "M2" ? 0 : 8));
    }
  });
});

/** Parts whose pins can all be lines of another part. */
const ANYWHERE = DEVICES.map((d) => d.id).filter((id) => {
  const part = catalogue.get(id)!;
  const pins = part.pins.filter((p) => p.need && !p.need.optional);
  const over = DEVICES.find((d) => d.id === id)!.of(wired({})).over;
  // What also has a pin for shares of a voltage, left to its jumper, would be told apart by nothing here.
  if (over?.kind === "pins" && (over.out ?? []).some((o) => o.as !== "level" && o.as !== "switch")) return false;
  return pins.every((p) => p.need!.kind !== "adc" && worksAnywhere(part, p.label, "level"));
});

/** A part on the first lines of an expander, each line where the part's pins come. */
function onExpander(id: string, board: object) {
  const labels = catalogue.get(id)!.pins.flatMap((p) => (p.need && !p.need.optional ? [p.label] : []));
  const links = labels.map((l, i) => ({ from: `M2.${l}`, to: `M1.P${i < 8 ? "B" : "A"}${i % 8}`, locked: true }));
  const parts = [
    { ref: "M1", part: "module/mcp23017" },
    { ref: "M2", part: id, label: "Part" },
  ];
  const plan = assign(make([board as never, USB, ...parts], [], { links }), catalogue).project;
  const c = circuitOf(plan, catalogue);
  const ps = driverParts(c, "B1", "micropython", (b) => b);
  const of = (ref: string) => ps.find((p) => p.inst.ref === ref)!;
  return { c, of, bit: (l: string) => (8 + labels.indexOf(l)) % 16 };
}
/** What being told something does to the part, by the interpreter. */
function goal(id: string, d: ReturnType<(typeof DEVICES)[number]["of"]>, want: number) {
  const part = MODELS.find((m) => m.part === id)!.make({}, {});
  const machine = machineOf(d, part);
  machine.want = want;
  for (let now = 0; now < 1000; now += Math.max(1, machine.turn(now)));
  return JSON.stringify(part.is!(1000));
}

describe("parts that only set and read levels, on an expander's lines", () => {
  it.each(ANYWHERE.map((id) => [id]))("%s", async (id) => {
    const x = onExpander(id, BOARD3);
    expect(gaps(x.c)).toEqual([]);
    const d = DEVICES.find((k) => k.id === id)!.of(x.of("M2"));
    const over = d.over as Extract<typeof d.over, { kind: "pins" }>;
    const files = micropython.files(x.c);
    const carrier = x.of("M1");
    const as: As = { chain: 1, outs: carrier.outs ?? 0, rests: carrier.rests ?? 0 };
    const mcp = MODELS.find((m) => m.part === "module/mcp23017")!;
    for (const level of [0, 1]) {
      const part = mcp.make({ bits: level ? 0xffff : 0 }, as);
      const model = MODELS.find((m) => m.part === id)!.make({}, {});
      const did: string[] = [];
      const heard: BusPart = {
        ...part,
        write(b, now) {
          const ok = part.write(b, now);
          const out = part.is!(now).out!;
          const levels = (over.out ?? []).map((o) => {
            const high = (out >> x.bit(o.pin)) & 1;
            return o.as === "switch" ? high ^ (restOf(x.of("M2"), o.pin) === 1 ? 1 : 0) : high;
          });
          if (over.out?.length && !Number.isNaN(out)) {
            model.write(levels, now);
            const is = JSON.stringify(model.is!(now));
            if (did.at(-1) !== is) did.push(is);
          }
          return ok;
        },
      };
      const typed = 'clock.STDIN.typed = [(2500, "2"), (2501, "\\n")]';
      const r = await runProgram(files, "bringup.py", `clock.END[0] = 9000\n${typed}`, new Map([[0x20, heard]]));
      if (d.proof?.kind === "seen") {
        let k = 0;
        for (const want of d.proof.show) {
          const at = did.indexOf(goal(id, d, want), k);
          expect(at, `${want}: ${did.join(" ")}`).toBeGreaterThanOrEqual(0);
          k = at;
        }
        expect(r.lines.some((l) => /^YL1 act M2 told=\S+ fresh=1 info$/.test(l))).toBe(true);
      } else {
        const machine = machineOf(d, {
          write: () => true,
          read: (n) => Array.from({ length: n }, (_, i) => (i % 2 ? level : 0)),
        });
        machine.turn(0);
        const q = d.out[0]!;
        expect(r.lines.find((l) => l.startsWith("YL1 sensor M2"))).toContain(`${q.name}=${machine.out.get(q.name)} `);
      }
    }
  });
  it("are many, and compile in C++", () => {
    expect(ANYWHERE.length).toBeGreaterThanOrEqual(17);
    for (const id of ANYWHERE) compileSketch("anywhere", sketch.files(onExpander(id, BOARD5).c), "starter");
  }, 120_000);
});

/** Parts that read voltages of others: two of their lines, and the world in which those are at shares of the supply, in percent. */
const READERS = [
  {
    id: "module/cd4067",
    lines: ["C3", "C12"],
    world: (low: number, high: number) =>
      Object.fromEntries(Array.from({ length: 16 }, (_, i) => [`c${i}`, i === 3 ? low : i === 12 ? high : 0])),
  },
  {
    id: "module/mcp3008",
    lines: ["CH2", "CH7"],
    world: (low: number, high: number) =>
      Object.fromEntries(
        [0, 1, 2, 3, 4, 5, 6, 7].map((i) => [`c${i}`, Math.round((i === 2 ? low : i === 7 ? high : 0) * 10.23)]),
      ),
  },
  {
    id: "module/ads1115",
    lines: ["A1", "A3"],
    world: (low: number, high: number, V: number) => ({
      a0_V: 0,
      a1_V: (low * V) / 100,
      a2_V: 0,
      a3_V: (high * V) / 100,
    }),
  },
] as const;
const SHARES = new Map([
  ["M2", 40],
  ["M3", 97],
]);

describe.each(READERS)("voltages on the lines of $id", (k) => {
  /** Two knobs on lines of it, as far turned as that; its other lines are at ground. */
  function knobs(board: object, V: number, silent = false) {
    const parts = [
      { ref: "M1", part: k.id },
      { ref: "M2", part: "discrete/potentiometer", label: "Low knob" },
      { ref: "M3", part: "discrete/potentiometer", label: "High knob" },
    ];
    const links = k.lines.map((line, i) => ({ from: `M${i + 2}.2`, to: `M1.${line}`, locked: true }));
    const plan = assign(make([board as never, USB, ...parts], [], { links }), catalogue).project;
    const c = circuitOf(plan, catalogue);
    expect(gaps(c)).toEqual([]);
    const model = MODELS.find((m) => m.part === k.id)!;
    const part = model.make(k.world(SHARES.get("M2")!, SHARES.get("M3")!, V), {});
    const p = driverParts(c, "B1", "sketch", (b) => b).find((x) => x.inst.ref === "M1")!;
    const wire = wirePart(c, "M1", DEVICES.find((d) => d.id === k.id)!.of(p), part, 1);
    const address = c.netlist.instance("M1")!.part.groups.find((g) => g.kind === "i2c")?.address;
    const bus = new Map(address && !silent ? [[parseInt(address, 16), part] as const] : []);
    return { c, part, wire, bus };
  }
  const well = (lines: readonly string[]) => {
    for (const [ref, pct] of SHARES) {
      const got = /pct=(\d+)/.exec(lines.find((l) => l.startsWith(`YL1 sensor ${ref} `)) ?? "")?.[1];
      expect(Math.abs(Number(got) - pct), `${ref}: ${got}`).toBeLessThanOrEqual(1);
    }
  };
  it("are read in simavr", async () => {
    const x = knobs(BOARD5, 5);
    const { elf } = compileSketch("knobs", sketch.files(x.c), "bringup");
    const lines = x.wire ? { part: x.wire, at: linesOf(x.c, "M1") } : undefined;
    well((await simulateWith(benchProgram(), elf, 4, x.bus, "YL1 done", lines)).lines);
    const starter = compileSketch("knobs", sketch.files(x.c), "starter");
    const said = (await simulateWith(benchProgram(), starter.elf, 4, x.bus, undefined, lines)).lines;
    expect(said.at(-1)).toMatch(/turned (39|40|41) %  turned (96|97|98) %/);
  }, 60_000);
  it("are read in MicroPython, and are none while it does not answer", async () => {
    const x = knobs(BOARD3, 3.3);
    const board = x.c.netlist.instance("B1")!.part;
    const at = new Map([...linesOf(x.c, "M1")].map(([line, pin]) => [findPin(board, pin)!.gpio!, line] as const));
    const lines = x.wire ? { lines: new Lines(x.wire), part: x.part, at } : undefined;
    const run = async (program: string, bus = x.bus) =>
      (await runProgram(micropython.files(x.c), program, "clock.END[0] = 4000", bus, lines)).lines;
    const last = (said: readonly string[]) => said.findLast((l) => l.includes("running"));
    well(await run("bringup.py"));
    expect(last(await run("main.py"))).toMatch(/turned (39|40|41) %  turned (96|97|98) %/);
    if (x.bus.size) expect(last(await run("main.py", new Map()))).toContain("Low knob --  High knob --");
  }, 60_000);
});

describe("a relay that is on while low, on a shift register", () => {
  it("stays off through all of bring-up, also when the register is asked for by its number", async () => {
    const parts = [
      { ref: "M1", part: "module/74hc595" },
      { ref: "M2", part: "module/relay-1", label: "Pump" },
    ];
    const links = [{ from: "M2.IN", to: "M1.QC", locked: true }];
    const c = circuitOf(assign(make([BOARD3, USB, ...parts], [], { links }), catalogue).project, catalogue);
    const ps = driverParts(c, "B1", "micropython", (b) => b);
    const [register, relay] = ["M1", "M2"].map((ref) => ps.find((p) => p.inst.ref === ref)!);
    expect(restOf(relay!, "IN")).toBe(1);
    const part = MODELS.find((m) => m.part === "module/74hc595")!.make({}, { chain: 1 });
    const told: number[] = [];
    const heard: BusPart = {
      ...part,
      write(b, now) {
        told.push(b.at(-1)!);
        return part.write(b, now);
      },
    };
    const wire = wirePart(c, "M1", DEVICES.find((d) => d.id === "module/74hc595")!.of(register!), heard, 1)!;
    const board = c.netlist.instance("B1")!.part;
    const at = new Map([...linesOf(c, "M1")].map(([line, pin]) => [findPin(board, pin)!.gpio!, line] as const));
    const lines = { lines: new Lines(wire), part: heard, at };
    const run = (typed: string) =>
      runProgram(
        micropython.files(c),
        "bringup.py",
        `clock.END[0] = 6000\nclock.STDIN.typed = [${typed}]`,
        new Map(),
        lines,
      );
    await run('(2500, "1"), (2501, "\\n")');
    expect(told.length).toBeGreaterThan(0);
    expect(told.every((v) => v === 4)).toBe(true);
    await run('(2500, "2"), (2501, "\\n")');
    expect(told).toContain(0);
    expect(told.at(-1)).toBe(4);
  });
});
