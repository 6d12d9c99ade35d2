import { beforeAll, describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import type { As, BusPart, Model, World } from "../src/core/bench/models/types";
import { circuitOf } from "../src/core/circuit";
import { machineOf } from "../src/core/firmware/devices/run";
import type { Device } from "../src/core/firmware/devices/types";
import { driverParts } from "../src/core/firmware/pins";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { CHIPS } from "../src/core/firmware/targets/avr-c/chips";
import { onOf } from "../src/core/firmware/targets/avr-c/devices";
import { talksOf } from "../src/core/firmware/targets/avr-c/parts";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import { catalogue, make } from "../src/core/testing";
import { benchProgram, compileC, simulateWith, type OnLines } from "./avr/toolchain";
import { linesOf, onTwoWires, wirePart } from "./parts";
import { goalOf, PULSE_DEG } from "./parts/goal";

const SUPPLY = { ref: "S1", part: "supply/usb-port" };
const MEGA328 = { mcu: "atmega328p", clock_Hz: 8_000_000 };

/** One part on a bare chip, or null where its program does not talk to it. */
function planned(chip: string, part: string, more: object[] = []) {
  const parts = [{ ref: "B1", part: chip }, SUPPLY, { ref: "M1", part, label: "Part" }, ...more];
  const a = assign(make(parts as never), catalogue);
  if (a.status === "infeasible") return null;
  const c = circuitOf(a.project, catalogue);
  const all = driverParts(c, "B1", "avr-c", (b) => b).filter((p) => !avrC.leaves!(p));
  const talk = talksOf(c, "B1", all).find((t) => t.p.inst.ref === "M1");
  return talk ? { c, talk, as: { chain: talk.p.chain, options: talk.p.options } satisfies As } : null;
}
type Planned = NonNullable<ReturnType<typeof planned>>;

/** The part on the chip's ports, wire by wire. */
function onPorts({ c, talk, as }: Planned, part: BusPart): OnLines {
  const board = c.netlist.instance("B1")!.part;
  const at = new Map([...linesOf(c, "M1")].map(([line, pin]) => [line, findPin(board, pin)!.names!["avr-c"]!]));
  const g = c.netlist.instance("M1")!.part.groups.find((x) => x.kind === "i2c");
  const wires = g
    ? onTwoWires(part, parseInt(g.address!, 16), g.pins.sda!, g.pins.scl!)
    : wirePart(c, "M1", talk.device, part, as.chain ?? 1)!;
  return { part: wires, at };
}

const read = (d: Device, m: Model, w: World, as: As) => {
  const machine = machineOf(d, m.make(w, as));
  for (let now = 0; !machine.fresh && now < 20_000; now += Math.max(1, machine.turn(now)));
  const inRoom = d.out.every((q) => machine.out.get(q.name)! >= q.room[0] && machine.out.get(q.name)! <= q.room[1]);
  return {
    line: `YL1 sensor M1 fresh=1 ${d.out.map((q) => `${q.name}=${machine.out.get(q.name)}`).join(" ")} ${inRoom ? (d.proof ? "info" : "ok") : "fail"}`,
    proven: inRoom && !d.proof,
  };
};
/** Whether all outputs are wired: an enable that is left to its jumper is not the program's. */
const whole = ({ c, talk: { device: d } }: Planned) =>
  d.over?.kind !== "pins" || (d.over.out ?? []).every((o) => linesOf(c, "M1").has(o.pin));

/** `letters`: whether the rows of a display below its first must show what bring-up shows there. */
function expectDone(is: World, goal: World, m: Model, letters = true) {
  // Letting outputs go belongs to the end of a bring-up that is talked with.
  for (const [q, v] of Object.entries(goal).filter(([q]) => q !== "let_out" && (letters || q !== "letters")))
    expect(Math.abs(is[q]! - v), `${q} is ${is[q]}, not ${v}`).toBeLessThanOrEqual(
      Math.max(m.within[q] ?? 0, q === "angle_deg" ? PULSE_DEG : 0) + 1e-9,
    );
}

/** Glasses whose dots take minutes here: their program is that of a smaller one with other numbers. */
const LARGE = new Set(["module/st7789", "module/ili9341", "module/st7735"]);
const CASES = MODELS.filter((m) => !LARGE.has(m.part))
  .filter((m) => planned("chip/atmega328p-dip28", m.part) !== null)
  .map((m) => [m.part, m] as const);

/** By turns here, all of them in the whole set: the same devices run whole in the other languages. */
const SOME = CASES.filter((_, i) => process.env.ALL || i % 2 === 0);

describe("parts in plain C, run in simavr against the bench's models", () => {
  let bench = "";
  beforeAll(() => {
    bench = benchProgram();
  }, 60_000);
  it("are nearly all that a chip's pins and buses reach", () => {
    expect(CASES.length).toBeGreaterThan(45);
  });
  it.each(SOME)("%s", async (id, m) => {
    const x = planned("chip/atmega328p-dip28", id)!;
    const { device: d } = x.talk;
    const files = avrC.files(x.c);
    const { elf } = compileC(`part-${id.replace("/", "-")}`, files, "bringup", MEGA328.mcu, MEGA328.clock_Hz);
    const run = (part: BusPart, seconds: number, until: string) =>
      simulateWith(bench, elf, seconds, new Map(), until, onPorts(x, part), [], MEGA328);
    if (d.takes) {
      const part = m.make({}, x.as);
      const r = await run(part, 12, "YL1 done");
      const careful = d.proof?.kind === "seen" && d.proof.careful;
      expect(r.lines.find((l) => l.startsWith("YL1 act M1"))).toMatch(careful ? / rests info$/ : /fresh=1 info$/);
      // What moves or switches stays at rest; what only shows has shown its last.
      const last = careful ? d.takes.rest : d.proof?.kind === "seen" ? d.proof.show.at(-1)! : d.takes.rest;
      if (!careful) expectDone(part.is!(12_000), goalOf(m, x.as, d, last), m);
      return;
    }
    // All worlds are tried with the interpreter; a program that differs from it differs in the first too.
    for (const w of process.env.ALL ? m.worlds : m.worlds.slice(0, 1)) {
      const want = read(d, m, w, x.as);
      const r = await run(m.make(w, x.as), 12, "YL1 done");
      expect(
        r.lines.find((l) => l.startsWith("YL1 sensor M1")),
        JSON.stringify(w),
      ).toBe(want.line);
      if (want.proven) expect(r.lines).toContain("YL1 done parts=1 proven=1 failed=0 unproven=0 ok");
    }
  });
  it.each(["module/bh1750", "module/max6675", "module/ds18b20", "module/dht22"])(
    "%s: a part that is not there fails, and the rest goes on",
    async (id) => {
      const x = planned("chip/atmega328p-dip28", id, [{ ref: "D1", part: "discrete/led-red" }])!;
      const { elf } = compileC("part-gone", avrC.files(x.c), "bringup", MEGA328.mcu, MEGA328.clock_Hz);
      const r = await simulateWith(bench, elf, 8, new Map(), "YL1 done", undefined, [], MEGA328);
      expect(r.lines.find((l) => l.startsWith("YL1 sensor M1"))).toMatch(/ fail$/);
      expect(r.lines.at(-1)).toMatch(/^YL1 done parts=2 proven=0 failed=1 unproven=1 fail$/);
    },
  );
  it("the starter tells what it reads once a second, takes the part back, and a key works what can be told something", async () => {
    const m = MODELS.find((k) => k.part === "module/bh1750")!;
    const x = planned("chip/atmega328p-dip28", m.part)!;
    const { elf } = compileC("part-starter", avrC.files(x.c), "main", MEGA328.mcu, MEGA328.clock_Hz);
    const w = m.worlds[0]!;
    const r = await simulateWith(bench, elf, 5.5, new Map(), undefined, onPorts(x, m.make(w, x.as)), [], MEGA328);
    const lux = /lux=(\d+)/.exec(read(x.talk.device, m, w, x.as).line)![1]!;
    const told = r.lines.filter((l) => l.startsWith("running"));
    expect(told.length).toBeGreaterThanOrEqual(4);
    expect(told.at(-1)).toBe(`running ${told.length} s M1=${lux} lx`);
    const alone = await simulateWith(bench, elf, 3.5, new Map(), undefined, undefined, [], MEGA328);
    expect(alone.lines.filter((l) => l.startsWith("running")).at(-1)).toMatch(/M1=--$/);
  });
  it.each(
    SOME.flatMap(([id, m]) => {
      const x = planned("chip/atmega328p-dip28", id, [{ ref: "SW1", part: "discrete/button" }]);
      // Tones are heard on their own: see tones.test.ts.
      const over = x?.talk.device.over;
      const sounds = over?.kind === "pins" && over.out?.some((o) => o.as === "tone");
      return x?.talk.device.takes && whole(x) && !sounds ? [[id, m, x] as const] : [];
    }),
  )("%s does what it is told while its key is held, and rests otherwise", async (id, m, x) => {
    const name = `told-${id.replace("/", "-")}`;
    const { elf } = compileC(name, avrC.files(x.c), "main", MEGA328.mcu, MEGA328.clock_Hz);
    const key = findPin(x.c.netlist.instance("B1")!.part, x.c.netlist.bindings.find((b) => b.ref === "SW1")!.hostPin)!
      .names!["avr-c"]!;
    const seconds = 2 + (m.settles ?? 0) / 1000;
    for (const [level, want] of [
      [0, onOf(x.talk)!],
      [1, x.talk.device.takes!.rest],
    ] as const) {
      const part = m.make({}, x.as);
      const hold = [`hold:${key}:${level}`];
      await simulateWith(bench, elf, seconds, new Map(), undefined, onPorts(x, part), hold, MEGA328);
      expectDone(part.is!(seconds * 1000), goalOf(m, x.as, x.talk.device, want), m, false);
    }
  });
  it.each(["chip/attiny84-dip14", "chip/attiny85-dip8", "chip/atmega32a-dip40"])(
    "%s: every part that it can hold compiles and fits",
    (chip) => {
      const b = catalogue.get(chip)!.board!;
      const { mcu } = CHIPS[b.chip]!;
      let tried = 0;
      // By turns here, all of them in the whole set.
      for (const [i, [id]] of CASES.entries()) {
        if (!process.env.ALL && (i + chip.length) % 3) continue;
        const x = planned(chip, id);
        if (!x) continue;
        tried++;
        for (const program of ["bringup", "main"]) {
          const built = compileC(`tiny-${chip.slice(5)}`, avrC.files(x.c), program, mcu, b.clock_Hz);
          expect(built.flash, id).toBeLessThan(b.flash_kB * 1024);
          expect(built.ram, id).toBeLessThan(b.ram_kB * 1024 * 0.6);
        }
      }
      expect(tried).toBeGreaterThan(4);
    },
    120_000,
  );
});
