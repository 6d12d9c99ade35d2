import { beforeAll, describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import type { Rule } from "../src/core/project";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileSketch, coreArchive, simulate } from "./avr/toolchain";
import { checkOnHost } from "./host/compile";
import { runProgram } from "./micropython/run";

const PARTS = [
  { ref: "SW1", part: "discrete/button", label: "Go" },
  { ref: "LED1", part: "discrete/led-red", label: "Lamp" },
  { ref: "LED2", part: "discrete/led-green", label: "Other lamp" },
  { ref: "M1", part: "module/relay-1", label: "Pump" },
];
const planned = (board: object, rules: Rule[] | undefined): Circuit => {
  const a = assign(make([board as never, USB, ...PARTS]), catalogue);
  return circuitOf({ ...a.project, ...(rules && { rules }) }, catalogue);
};
const pinOf = (c: Circuit, ref: string) => c.netlist.bindings.find((b) => b.ref === ref && b.host === "B1")!.hostPin;
const gpio = (c: Circuit, ref: string) => findPin(c.netlist.instance("B1")!.part, pinOf(c, ref))!.gpio!;
const port = (pin: string) => {
  const n = Number(pin.slice(1));
  return pin.startsWith("A") ? `PC${n}` : n < 8 ? `PD${n}` : `PB${n - 8}`;
};

const ALTERNATE: Rule[] = [
  { when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "LED1", act: "next", among: ["LED2"] } },
  { when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "M1", act: "on" } },
];

describe("rules in MicroPython", () => {
  const presses = (c: Circuit) => `
clock.END[0] = 6000
pressed = []
for at in (1000, 2000, 3000, 4000):
    pressed += [(at + 300, 1), (at, 0)]
machine.LEVELS_AT[${gpio(c, "SW1")}] = sorted(pressed, reverse=True)`;
  it("when the button is pressed, the lamps take turns, and the pump runs as long as it is held", async () => {
    const c = planned(BOARD3, ALTERNATE);
    const r = await runProgram(micropython.files(c), "main.py", presses(c));
    const of = (ref: string) => r.log.filter((e) => e[0] === "toggle" && e[1] === gpio(c, ref)).map((e) => e[2]);
    expect(of("LED1")).toEqual([1, 0, 1, 0]);
    expect(of("LED2")).toEqual([1, 0, 1]);
    // It switches on by a low.
    expect(of("M1")).toEqual([0, 1, 0, 1, 0, 1, 0, 1]);
  });
  it("suggested ones switch what may be switched only while the contact is held", async () => {
    const c = planned(BOARD3, undefined);
    const r = await runProgram(micropython.files(c), "main.py", presses(c));
    const of = (ref: string) => r.log.filter((e) => e[0] === "toggle" && e[1] === gpio(c, ref)).map((e) => e[2]);
    expect(of("M1")).toEqual([0, 1, 0, 1, 0, 1, 0, 1]);
    expect(of("LED1").length).toBeGreaterThan(8);
  });
  it("no rules at all: nothing is told anything", async () => {
    const c = planned(BOARD3, []);
    const r = await runProgram(micropython.files(c), "main.py", presses(c));
    expect(r.log.filter((e) => e[0] === "toggle" && e[1] === gpio(c, "M1"))).toEqual([]);
  });
});

describe("for a while, and by the clock, in MicroPython", () => {
  /** What a clock of the bench says, from its first second on. */
  const atTime = (hour: number, minute: number) =>
    MODELS.find((m) => m.part === "module/ds3231")!.make({ hour, minute, second: 0 }, {});
  const CLOCK = { ref: "M5", part: "module/ds3231", label: "Clock" };
  const run = (rules: Rule[], hour: number, minute: number, set: string) => {
    const a = assign(make([BOARD3, USB, ...PARTS, CLOCK]), catalogue);
    const c = circuitOf({ ...a.project, rules }, catalogue);
    const bus = new Map([[0x68, atTime(hour, minute)]]);
    return runProgram(micropython.files(c), "main.py", set.replaceAll("SW1", gpio(c, "SW1").toString()), bus).then(
      (r) => ({
        of: (ref: string) => r.log.filter((e) => e[0] === "toggle" && e[1] === gpio(c, ref)).map((e) => [e[2], e[3]]),
      }),
    );
  };
  it("a lamp stays on for its time after the press, which begins anew with the next", async () => {
    const rules: Rule[] = [{ when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "LED1", act: "for", for_s: 2 } }];
    const r = await run(
      rules,
      12,
      0,
      "clock.END[0] = 8000\nmachine.LEVELS_AT[SW1] = [(2300, 1), (2200, 0), (1300, 1), (1000, 0)]",
    );
    expect(r.of("LED1").map((e) => e[0])).toEqual([1, 0]);
  });
  it.each([
    ["18:00", "23:00", 19, 30, 1],
    ["18:00", "23:00", 23, 0, 0],
    ["18:00", "23:00", 17, 59, 0],
    ["22:00", "06:00", 2, 15, 1],
    ["22:00", "06:00", 22, 0, 1],
    ["22:00", "06:00", 12, 0, 0],
  ])("from %s to %s, at %i:%i: %i", async (from, to, hour, minute, on) => {
    const rules: Rule[] = [{ when: { ref: "M5", from, to }, do: { ref: "LED1", act: "on" } }];
    const r = await run(rules, hour, minute, "clock.END[0] = 4000");
    expect(r.of("LED1").at(-1)?.[0] ?? 0).toBe(on);
  });
  it("once at its minute, not when the board is started in the while that follows, nor by being plugged in", async () => {
    const evening: Rule[] = [
      { when: { ref: "M5", from: "18:00", to: "23:00" }, do: { ref: "LED1", act: "for", for_s: 60 } },
    ];
    expect((await run(evening, 19, 30, "clock.END[0] = 4000")).of("LED1")).toEqual([]);
    expect((await run(evening, 18, 0, "clock.END[0] = 4000")).of("LED1").map((e) => e[0])).toEqual([1]);
    const often: Rule[] = [{ when: { every_s: 3 }, do: { ref: "LED1", act: "for", for_s: 1 } }];
    expect((await run(often, 12, 0, "clock.END[0] = 2500")).of("LED1")).toEqual([]);
    expect((await run(often, 12, 0, "clock.END[0] = 5500")).of("LED1").map((e) => e[0])).toEqual([1, 0]);
  });
  it("once at its minute, not again within it", async () => {
    const rules: Rule[] = [{ when: { ref: "M5", at: "07:30" }, do: { ref: "LED1", act: "toggle" } }];
    const r = await run(rules, 7, 30, "clock.END[0] = 6000");
    expect(r.of("LED1").map((e) => e[0])).toEqual([1]);
    expect((await run(rules, 7, 31, "clock.END[0] = 4000")).of("LED1")).toEqual([]);
  });
});

/** How bright, and the time of day on a display: what a rule follows or sets by pulses. */
const DIMMED: Rule[] = [
  { when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "LED1", act: "set", value: 30 } },
  { when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "M2", act: "set", value: 75 } },
];
const dimmable = (board: object, rules: Rule[], links: { from: string; to: string; locked: true }[] = []): Circuit => {
  const parts = [...PARTS.slice(0, 2), { ref: "M2", part: "module/mosfet-switch", label: "Strip" }];
  return circuitOf(assign({ ...make([board as never, USB, ...parts]), links, rules }, catalogue).project, catalogue);
};

describe("how bright a light is", () => {
  it("is told by pulses in MicroPython, and the pin is one that makes them", async () => {
    const c = dimmable(BOARD3, DIMMED);
    for (const ref of ["LED1", "M2"])
      expect(findPin(c.netlist.instance("B1")!.part, pinOf(c, ref))!.offers!.map((o) => o.kind)).toContain("pwm");
    const r = await runProgram(
      micropython.files(c),
      "main.py",
      `clock.END[0] = 4000\nmachine.LEVELS_AT[${gpio(c, "SW1")}] = [(2000, 1), (1000, 0)]`,
    );
    const of = (ref: string) => r.log.filter((e) => e[0] === "duty" && e[1] === gpio(c, ref)).map((e) => e[2]);
    expect(of("LED1")).toEqual([19660, 0]);
    expect(of("M2")).toEqual([191 * 257, 0]);
  });
});

describe("sketches of every other family that tell how bright a light is, and the time of day", () => {
  const families = new Map(
    catalogue.parts
      .filter((p) => p.board && p.id.startsWith("board/") && p.board.family !== "avr")
      .map((p) => [p.board!.family, p.id]),
  );
  it.each([...families])("%s", (family, id) => {
    const c = circuitOf(
      assign(
        {
          ...make([
            { ref: "B1", part: id },
            USB,
            { ref: "LED1", part: "discrete/led-red", label: "Lamp" },
            { ref: "M2", part: "module/mosfet-switch", label: "Strip" },
            { ref: "M5", part: "module/ds3231", label: "Clock" },
            { ref: "M6", part: "module/ht16k33-digits", label: "Digits" },
          ]),
          rules: [
            { when: { ref: "M5", out: "time" }, do: { ref: "M6", act: "follow" } },
            { when: { ref: "M5", out: "time" }, do: { ref: "LED1", act: "follow" } },
            { when: { ref: "M5", from: "18:00", to: "23:00" }, do: { ref: "M2", act: "set", value: 40 } },
          ],
        },
        catalogue,
      ).project,
      catalogue,
    );
    if (sketch.without(c).length) return;
    const files = sketch.files(c);
    expect(files.find((f) => f.path === "starter/starter.ino")!.text).toContain("analogWrite(");
    checkOnHost(`dimmed-${family}`, files, "starter", family);
  });
});

describe("digits that follow a clock", () => {
  it("show hours and minutes side by side", async () => {
    const digits = MODELS.find((m) => m.part === "module/ht16k33-digits")!.make({}, {});
    const clock = MODELS.find((m) => m.part === "module/ds3231")!.make({ hour: 19, minute: 4, second: 0 }, {});
    const rules: Rule[] = [{ when: { ref: "M5", out: "time" }, do: { ref: "M6", act: "follow" } }];
    const parts = [
      { ref: "M5", part: "module/ds3231", label: "Clock" },
      { ref: "M6", part: "module/ht16k33-digits", label: "Digits" },
    ];
    const a = assign({ ...make([BOARD3, USB, ...parts]), rules }, catalogue);
    const c = circuitOf(a.project, catalogue);
    await runProgram(
      micropython.files(c),
      "main.py",
      "clock.END[0] = 3000",
      new Map([
        [0x68, clock],
        [0x70, digits],
      ]),
    );
    expect(digits.is!(3000)).toMatchObject({ shows: 1904 });
  });
});

describe("a strip as a bar", () => {
  it("lights as many as it is told, and only when that changes", async () => {
    const a = assign(
      make([
        BOARD3,
        USB,
        { ref: "SW1", part: "discrete/button", label: "Go" },
        { ref: "M7", part: "module/ws2812b-ring-16", label: "Bar" },
      ]),
      catalogue,
    );
    const rules: Rule[] = [{ when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "M7", act: "set", value: 5 } }];
    const c = circuitOf({ ...a.project, rules }, catalogue);
    const r = await runProgram(
      micropython.files(c),
      "main.py",
      `clock.END[0] = 4000\nmachine.LEVELS_AT[${gpio(c, "SW1")}] = [(2000, 1), (1000, 0)]`,
    );
    expect(r.log.filter((e) => e[0] === "bitstream")).toHaveLength(2);
  });
});

describe("rules in C++, run in simavr", () => {
  let bench = "";
  beforeAll(() => {
    coreArchive();
    bench = benchProgram();
  }, 240_000);
  it("do the same", () => {
    const c = planned(BOARD5, ALTERNATE);
    const { elf } = compileSketch("rules", sketch.files(c), "starter");
    const go = port(pinOf(c, "SW1"));
    const events = [1000, 2000, 3000, 4000].flatMap((at) => [`later:${go}:${at}:0`, `later:${go}:${at + 300}:1`]);
    const r = simulate(bench, elf, 6, [`hold:${go}:1`, ...events]);
    const toggles = (ref: string) => r.toggles.get(port(pinOf(c, ref)));
    // One more than MicroPython's: each pin is first driven at all.
    expect([toggles("LED1"), toggles("LED2"), toggles("M1")]).toEqual([5, 4, 9]);
  });
  it("a lamp stays on for its time after the press", () => {
    const rules: Rule[] = [{ when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "LED1", act: "for", for_s: 2 } }];
    const c = planned(BOARD5, rules);
    const { elf } = compileSketch("rules-for", sketch.files(c), "starter");
    const go = port(pinOf(c, "SW1"));
    const press = [`hold:${go}:1`, `later:${go}:1000:0`, `later:${go}:1300:1`];
    const toggles = (seconds: number) => simulate(bench, elf, seconds, press).toggles.get(port(pinOf(c, "LED1")));
    // The pin is first driven, lit, and dark again two seconds after.
    expect([toggles(0.9), toggles(2.5), toggles(4)]).toEqual([1, 2, 3]);
  });
  it("how bright a light is, by pulses of a timer", () => {
    // Timer 0's pins: the simulator shows no pulses of the other timers' slower kind.
    const at = (ref: string, pin: string) =>
      dimmable(BOARD5, DIMMED, [{ from: `${ref}.${pin}`, to: "B1.D6", locked: true }]);
    for (const [c, ref] of [
      [at("LED1", "A"), "LED1"],
      [at("M2", "SIG"), "M2"],
    ] as const) {
      const { elf } = compileSketch(`rules-dimmed-${ref}`, sketch.files(c), "starter");
      const go = port(pinOf(c, "SW1"));
      const r = simulate(bench, elf, 3, [`hold:${go}:1`, `later:${go}:1000:0`, `later:${go}:2000:1`]);
      expect(pinOf(c, ref)).toBe("D6");
      // 16 MHz / 64 / 256 pulses a second, for the second that the button is held.
      expect(Math.abs(r.toggles.get("PD6")! - 2 * 977)).toBeLessThan(80);
    }
  });
  it("every kind of rule compiles, with sensors of every kind", () => {
    const a = assign(
      make([
        BOARD5,
        USB,
        { ref: "M2", part: "module/hc-sr04", label: "Distance" },
        { ref: "M3", part: "module/aht20", label: "Air" },
        { ref: "M4", part: "module/servo-small", label: "Flag" },
        { ref: "M5", part: "module/ht16k33-digits", label: "Digits" },
        { ref: "M6", part: "module/max31855", label: "Oven" },
        { ref: "M7", part: "module/ws2812b-strip", label: "Bar", options: { pixels: 8 } },
        { ref: "M8", part: "module/ds3231", label: "Clock" },
        ...PARTS.slice(0, 2),
      ]),
      catalogue,
    );
    const rules: Rule[] = [
      { when: { ref: "M2", out: "cm", below: 20, hysteresis: 2 }, do: { ref: "LED1", act: "on" } },
      { when: { ref: "M3", out: "t", above: 25.5, hysteresis: 0.5 }, do: { ref: "M4", act: "set", value: 90 } },
      { when: { ref: "M6", out: "t" }, do: { ref: "M5", act: "follow" } },
      { when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "LED1", act: "toggle" } },
      { when: { every_s: 2 }, do: { ref: "M5", act: "count" } },
      { when: { ref: "M2", out: "cm" }, do: { ref: "M4", act: "follow" } },
      { when: { ref: "M2", out: "cm" }, do: { ref: "M7", act: "follow" } },
      { when: { ref: "M3", out: "rh", above: 60 }, do: { ref: "LED1", act: "off" } },
      { when: { ref: "M8", from: "22:00", to: "06:00" }, do: { ref: "LED1", act: "off" } },
      { when: { ref: "M8", at: "07:30" }, do: { ref: "M4", act: "for", for_s: 86_400 } },
      { when: { ref: "M8", out: "time" }, do: { ref: "M5", act: "follow" } },
      { when: { ref: "M8", out: "time" }, do: { ref: "M7", act: "follow" } },
    ];
    const c = circuitOf({ ...a.project, rules }, catalogue);
    const files = sketch.files(c);
    const starter = files.find((f) => f.path === "starter/starter.ino")!.text;
    expect(starter).toContain("// When Distance is below 20 cm, Lamp is on.");
    expect(starter).toContain("m3_air_t_cC > (rule1_holds ? 2500 : 2550)".replace("m3_air", "air"));
    expect(compileSketch("rules-all", files, "starter").flash).toBeLessThan(32_000);
  });
});
