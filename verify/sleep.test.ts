import { beforeAll, describe, expect, it } from "vitest";
import { stageOf } from "../src/core/bench/stage";
import { MODELS } from "../src/core/bench/models";
import { circuitOf } from "../src/core/circuit";
import { driverParts } from "../src/core/firmware/pins";
import { programOf } from "../src/core/firmware/sim";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { CHIPS } from "../src/core/firmware/targets/avr-c/chips";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileC, compileSketch, coreArchive, simulateChip, simulateWith } from "./avr/toolchain";
import { checkOnHost } from "./host/compile";
import { runProgram } from "./micropython/run";
import { linesOf } from "./parts";

const ROUND = { every_s: 12, awake_s: 4 };
const SECONDS = 27;
/** Two naps in that time. */
const NAPS = 2;
const NAP_MS = (ROUND.every_s - ROUND.awake_s) * 1000;
const LAMP = { ref: "LED1", part: "discrete/led-red", label: "Lamp" };

/** Air and light on a board that is awake for four of every thirty seconds. */
const planned = (board: object, parts: object[] = [], sleep: object | null = ROUND) =>
  circuitOf(
    assign(
      make([
        { ...board, ...(sleep && { sleep }) },
        USB,
        { ref: "M1", part: "module/aht20", label: "Air" },
        { ref: "M2", part: "module/bh1750", label: "Light" },
        ...parts,
      ] as never),
      catalogue,
    ).project,
    catalogue,
  );
/** With a sentence that goes by a reading: it waits for this round's. */
const ruled = (c: C) =>
  circuitOf(
    {
      ...c.project,
      rules: [{ when: { ref: "M2", out: "lux", above: 1, hysteresis: 0.5 }, do: { ref: "LED1", act: "on" as const } }],
    },
    catalogue,
  );
type C = ReturnType<typeof planned>;

const bus = (c: C, target: string) =>
  new Map(
    driverParts(c, "B1", target, (b) => b).flatMap((p) => {
      const m = MODELS.find((x) => x.part === p.inst.part.id);
      return m && p.address ? [[Number(p.address), m.make(m.worlds[0]!, { options: p.options })] as const] : [];
    }),
  );
const bySim = (c: C, target: "sketch" | "micropython") => {
  const p = programOf(c, "B1", target, stageOf(c, "B1", target));
  p.run(SECONDS * 1000);
  return p.said.map((s) => s.line);
};
/** Seconds at which a line was told. */
const told = (lines: readonly string[]) =>
  lines.flatMap((l) => / running (\d+) s$/.exec(` ${l}`)?.[1] ?? []).map(Number);
/** Awake for four seconds, asleep to the end of the round; a line at the edge may fall on either side. */
function expectRounds(lines: readonly string[]) {
  const at = told(lines);
  expect(at.filter((s) => s % ROUND.every_s > ROUND.awake_s)).toEqual([]);
  for (let round = 0; round * ROUND.every_s < SECONDS - ROUND.awake_s; round++) {
    const here = at.filter((s) => Math.floor(s / ROUND.every_s) === round).length;
    expect(here, `lines in round ${round}: ${at.join(" ")}`).toBeGreaterThanOrEqual(3);
    expect(here).toBeLessThanOrEqual(5);
  }
}
/** What is read at the end of each round, without the time. */
const readings = (lines: readonly string[]) =>
  [0, 1, 2].map((round) =>
    lines
      .filter((l) => told([l]).some((s) => Math.floor(s / ROUND.every_s) === round))
      .at(-1)!
      .replace(/ {2}running.*/, ""),
  );

describe("sleep between readings, as it is uploaded", () => {
  let exe = "";
  beforeAll(() => {
    coreArchive();
    exe = benchProgram();
  }, 240_000);

  it("in MicroPython: the lines of the interpreter, and naps of the right length", async () => {
    const c = planned(BOARD3);
    const r = await runProgram(
      micropython.files(c),
      "main.py",
      `clock.END[0] = ${SECONDS * 1000}`,
      bus(c, "micropython"),
    );
    expectRounds(r.lines);
    expect(readings(r.lines)).toEqual(readings(bySim(c, "micropython")));
    expect(r.log.filter((e) => e[0] === "lightsleep")).toEqual(Array(NAPS).fill(["lightsleep", NAP_MS]));
  });

  it("as a sketch in simavr: the watchdog wakes it, its own time goes on, its light is dark", async () => {
    const c = planned(BOARD5, [LAMP]);
    const { elf } = compileSketch("sleep", sketch.files(c), "starter");
    const r = await simulateWith(exe, elf, SECONDS, bus(c, "sketch"));
    expectRounds(r.lines);
    expect(readings(r.lines)).toEqual(readings(bySim(c, "sketch")));
    expect(r.asleep_ms).toBeGreaterThan(NAPS * NAP_MS - 400);
    expect(r.asleep_ms).toBeLessThan(NAPS * NAP_MS + 400);
    const lamp = findPin(c.netlist.instance("B1")!.part, linesOf(c, "LED1").get("A")!)!.names!["avr-c"]!;
    // It blinks while awake only: eight changes a round, one more to switch it off, one to begin with.
    expect(r.toggles.get(lamp)!).toBeLessThan(32);
    const awake = planned(BOARD5, [LAMP], null);
    const always = await simulateWith(
      exe,
      compileSketch("awake", sketch.files(awake), "starter").elf,
      12,
      bus(awake, "sketch"),
    );
    expect(always.asleep_ms).toBe(0);
    expect(told(always.lines).length).toBeGreaterThan(10);
  });

  it("with a sentence, in C++ and in MicroPython: the light stays as it was told while it sleeps", async () => {
    const c = ruled(planned(BOARD5, [LAMP]));
    const [parts] = [bus(c, "sketch")];
    const r = await simulateWith(exe, compileSketch("sleep-ruled", sketch.files(c), "starter").elf, SECONDS, parts);
    expectRounds(r.lines);
    const port = findPin(c.netlist.instance("B1")!.part, linesOf(c, "LED1").get("A")!)!.names!["avr-c"]!;
    // Made an output, and lit: never again changed.
    expect(r.toggles.get(port)!).toBeLessThanOrEqual(2);
    const py = ruled(planned(BOARD3, [LAMP]));
    const said = await runProgram(
      micropython.files(py),
      "main.py",
      `clock.END[0] = ${SECONDS * 1000}`,
      bus(py, "micropython"),
    );
    expectRounds(said.lines);
    const gpio = findPin(py.netlist.instance("B1")!.part, linesOf(py, "LED1").get("A")!)!.gpio!;
    expect(said.log.filter((e) => e[0] === "toggle" && e[1] === gpio).map((e) => e[2])).toEqual([1]);
  });

  it("a relay that a sentence switches on for five seconds is off again before it sleeps, in C++ and MicroPython", async () => {
    const relay = { ref: "M3", part: "module/relay-1", label: "Pump" };
    const pump = (c: C) =>
      circuitOf(
        { ...c.project, rules: [{ when: { every_s: 3 }, do: { ref: "M3", act: "for" as const, for_s: 5 } }] },
        catalogue,
      );
    // It comes again every three seconds and so never ends: the board never sleeps.
    const always = pump(planned(BOARD5, [relay]));
    const r = await simulateWith(
      exe,
      compileSketch("sleep-pump", sketch.files(always), "starter").elf,
      14,
      bus(always, "sketch"),
    );
    expect(r.asleep_ms).toBe(0);
    const once = pump(planned(BOARD3, [relay]));
    const rules = [{ when: { every_s: 12 }, do: { ref: "M3", act: "for" as const, for_s: 5 } }];
    const py = circuitOf({ ...once.project, rules }, catalogue);
    const said = await runProgram(micropython.files(py), "main.py", `clock.END[0] = 60000`, bus(py, "micropython"));
    const gpio = findPin(py.netlist.instance("B1")!.part, linesOf(py, "M3").get("IN")!)!.gpio!;
    // In the order of doing: never a nap between on and off.
    const order = said.log.flatMap((e) =>
      e[0] === "lightsleep" ? ["nap"] : e[0] === "toggle" && e[1] === gpio ? [e[2] === 1 ? "a" : "b"] : [],
    );
    expect(order.filter((x) => x === "nap").length).toBeGreaterThanOrEqual(2);
    const switched = order.filter((x) => x !== "nap").length;
    expect(switched).toBeGreaterThanOrEqual(4);
    expect(order.join(" ")).not.toMatch(new RegExp(`${order.find((x) => x !== "nap")} nap`));
  });

  it.each(["chip/atmega328p-dip28", "chip/attiny85-dip8"])(
    "with a part that is talked to and a sentence, in plain C on %s",
    async (id) => {
      const parts = [
        { ref: "B1", part: id, sleep: ROUND },
        { ref: "S1", part: "supply/usb-port" },
        { ref: "M2", part: "module/bh1750", label: "Light" },
        LAMP,
      ];
      const c = ruled(circuitOf(assign(make(parts as never), catalogue).project, catalogue));
      const files = avrC.files(c);
      expect(files.find((f) => f.path === "main.c")!.text).toContain("light_fresh = false;");
      const { chip, clock_Hz } = c.netlist.instance("B1")!.part.board!;
      const { elf } = compileC(`sleep-${id.slice(5)}`, files, "main", CHIPS[chip]!.mcu, clock_Hz);
      const r = simulateChip(exe, elf, SECONDS, [], CHIPS[chip]!.mcu, clock_Hz);
      expect(r.asleep_ms).toBeGreaterThan(NAPS * NAP_MS - 400);
      expect(r.asleep_ms).toBeLessThan(NAPS * NAP_MS + 400);
    },
    60_000,
  );

  it.each(Object.entries(CHIPS).filter(([, k]) => k.watchdog))(
    "on a bare %s in plain C: compiled, asleep for its part of the time",
    (name, chip) => {
      const id = catalogue.ids.find((x) => catalogue.get(x)!.board?.chip === name && x.startsWith("chip/"))!;
      const parts = [{ ref: "B1", part: id, sleep: ROUND }, { ref: "S1", part: "supply/usb-port" }, LAMP];
      const c = circuitOf(assign(make(parts as never), catalogue).project, catalogue);
      const clock = c.netlist.instance("B1")!.part.board!.clock_Hz;
      const { elf, flash } = compileC(`sleep-${name}`, avrC.files(c), "main", chip.mcu, clock);
      expect(flash).toBeLessThan(c.netlist.instance("B1")!.part.board!.flash_kB * 1024);
      const r = simulateChip(exe, elf, SECONDS, [], chip.mcu, clock);
      expect(r.asleep_ms).toBeGreaterThan(NAPS * NAP_MS - 400);
      expect(r.asleep_ms).toBeLessThan(NAPS * NAP_MS + 400);
    },
    60_000,
  );

  it("as a sketch of the other family that sleeps: against its documented calls", () => {
    const c = planned({ ref: "B1", part: "board/esp32-thirtyeight" }, [LAMP]);
    const files = sketch.files(c);
    expect(files.find((f) => /starter\.ino$/.test(f.path))!.text).toContain(`nap(${NAP_MS}UL)`);
    checkOnHost("sleep-esp32", files, "starter", "esp32");
  });
});
