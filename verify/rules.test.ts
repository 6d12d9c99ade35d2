import { beforeAll, describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import type { Rule } from "../src/core/project";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileSketch, coreArchive, simulate } from "./avr/toolchain";
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
    ];
    const c = circuitOf({ ...a.project, rules }, catalogue);
    const files = sketch.files(c);
    const starter = files.find((f) => f.path === "starter/starter.ino")!.text;
    expect(starter).toContain("// When Distance is below 20 cm, Lamp is on.");
    expect(starter).toContain("m3_air_t_cC > (rule1_holds ? 2500 : 2550)".replace("m3_air", "air"));
    expect(compileSketch("rules-all", files, "starter").flash).toBeLessThan(32_000);
  });
});
