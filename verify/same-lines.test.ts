import fs from "node:fs";
import { beforeAll, describe, expect, it } from "vitest";
import { stageOf } from "../src/core/bench/stage";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { DEVICES } from "../src/core/firmware/devices";
import { driverParts } from "../src/core/firmware/pins";
import { programOf, type Tried } from "../src/core/firmware/sim";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { MODELS } from "../src/core/bench/models";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import { readProject, type Rule } from "../src/core/project";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileC, compileSketch, coreArchive, simulateWith } from "./avr/toolchain";
import { runProgram } from "./micropython/run";
import { busOnTwoWires, linesOf, wirePart } from "./parts";
import { Lines } from "./parts/lines";
import { together } from "./parts/together";

/** Presses of the first contact, ms: from when, until when. */
const PRESSES = [
  [1500, 1900],
  [2600, 2700],
  [4200, 5100],
];
const SECONDS = 8;

interface Case {
  name: string;
  /** One of the demo projects, as it ships. */
  demo?: string;
  parts: object[];
  links?: object[];
  rules?: Rule[];
}
const [GO, LAMP, OTHER] = [
  { ref: "SW1", part: "discrete/button", label: "Go" },
  { ref: "LED1", part: "discrete/led-red", label: "Lamp" },
  { ref: "LED2", part: "discrete/led-green", label: "Other lamp" },
];
const pressed = { ref: "SW1", out: "pressed", is: 1 };
const CASES: Case[] = [
  { name: "a lamp that blinks by itself", parts: [LAMP, GO] },
  {
    name: "lamps that take turns",
    parts: [GO, LAMP, OTHER],
    rules: [{ when: pressed, do: { ref: "LED1", act: "next", among: ["LED2"] } }],
  },
  {
    name: "for a while, and on or off",
    parts: [GO, LAMP, OTHER],
    rules: [
      { when: pressed, do: { ref: "LED1", act: "for", for_s: 0.5 } },
      { when: { every_s: 1.5 }, do: { ref: "LED2", act: "toggle" } },
    ],
  },
  {
    name: "one thing after the other, and again, begun anew by a press in the midst of it",
    parts: [GO, LAMP, OTHER, { ref: "M1", part: "module/servo-small", label: "Flag" }],
    rules: [
      {
        when: pressed,
        do: {
          ref: "LED1",
          act: "sequence",
          steps: [
            { value: "on", for_s: 0.3 },
            { value: "off", for_s: 0.2 },
            { value: "on", for_s: 0.25 },
          ],
          times: 2,
        },
      },
      { when: { every_s: 2 }, do: { ref: "LED2", act: "sequence", steps: [{ value: "on", for_s: 0.4 }] } },
      {
        when: pressed,
        do: {
          ref: "M1",
          act: "sequence",
          steps: [
            { value: 90, for_s: 0.5 },
            { value: 20, for_s: 0.5 },
          ],
        },
      },
    ],
  },
  {
    name: "air, light and time on a display, a lamp by the temperature",
    parts: [
      { ref: "M1", part: "module/bme280", label: "Air" },
      { ref: "M2", part: "module/bh1750", label: "Light" },
      { ref: "M3", part: "module/ds3231", label: "Clock" },
      { ref: "M4", part: "module/ssd1306-i2c", label: "Display" },
      GO,
      LAMP,
      OTHER,
    ],
    rules: [
      { when: { ref: "M1", out: "t", above: 20, hysteresis: 1 }, do: { ref: "LED1", act: "on" } },
      { when: pressed, do: { ref: "LED2", act: "on" } },
    ],
  },
  {
    name: "a distance, text by pins, a relay",
    parts: [
      { ref: "M1", part: "module/hc-sr04", label: "Distance" },
      { ref: "M2", part: "module/lcd1602-parallel", label: "Text" },
      { ref: "M3", part: "module/relay-1", label: "Pump" },
      GO,
      LAMP,
    ],
    rules: [
      { when: { ref: "M1", out: "cm", below: 50 }, do: { ref: "LED1", act: "on" } },
      { when: pressed, do: { ref: "M3", act: "on" } },
      { when: { ref: "M1", out: "cm" }, do: { ref: "M2", act: "follow" } },
    ],
  },
  {
    name: "humidity on a text display with more to say than rows",
    parts: [
      { ref: "M1", part: "module/aht20", label: "Air" },
      { ref: "M2", part: "module/sht31", label: "Outside" },
      { ref: "M3", part: "module/adxl345", label: "Tilt" },
      { ref: "M4", part: "module/lcd1602-i2c", label: "Text" },
      GO,
    ],
    rules: [],
  },
  // The knob's first world is that of the line it hangs on.
  {
    name: "a knob on a converter, a servo and a light on a maker of pulses",
    parts: [
      { ref: "M1", part: "module/mcp3008", label: "Converter" },
      { ref: "M2", part: "discrete/potentiometer", label: "Knob" },
      { ref: "M3", part: "module/pca9685", label: "Arms" },
      { ref: "M4", part: "module/servo-small", label: "Arm" },
      GO,
      LAMP,
    ],
    links: [
      { from: "M2.2", to: "M1.CH0", locked: true },
      { from: "M4.SIG", to: "M3.PWM5", locked: true },
    ],
    rules: [
      { when: pressed, do: { ref: "M4", act: "set", value: 90 } },
      { when: { ref: "M2", out: "pct", below: 50 }, do: { ref: "LED1", act: "on" } },
    ],
  },
];

/** What only plain C does by itself: a key that works a load, a voltage that works a lamp, digits that count. */
const PLAIN: Case[] = [
  { name: "a key works a relay, another lamp blinks", parts: [GO, { ref: "K1", part: "module/relay-1" }, LAMP] },
  { name: "a lamp lights in the dark", parts: [LAMP, { ref: "R1", part: "discrete/ldr", label: "Dusk" }, OTHER] },
];

const DEMOS = {
  rain: { name: "the rain barrel", demo: "rain-barrel", parts: [] },
  moss: { name: "the moss terrarium", demo: "moss-terrarium", parts: [] },
} satisfies Record<string, Case>;

const circuit = (board: object, x: Case): Circuit => {
  if (x.demo) {
    const read = readProject(
      fs.readFileSync(new URL(`../demo/${x.demo}.lattice.json`, import.meta.url), "utf8"),
      catalogue,
    );
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    return circuitOf(read.project, catalogue);
  }
  const a = assign(
    make([board as never, USB, { ref: "S2", part: "supply/adapter-5v-2a" }, ...(x.parts as never[])], [], {
      links: x.links ?? [],
    }),
    catalogue,
  );
  return circuitOf({ ...a.project, ...(x.rules && { rules: x.rules }) }, catalogue);
};

/** What the interpreter says and does. */
function bySim(c: Circuit, target: Tried) {
  const stage = stageOf(c, "B1", target);
  const levels = new Map<string, number[]>();
  const p = programOf(c, "B1", target, {
    ...stage,
    drive(ref, pin, level, now) {
      const list = levels.get(ref) ?? [];
      if ((list.at(-1) ?? 0) !== level) levels.set(ref, [...list, level]);
      stage.drive(ref, pin, level, now);
    },
  });
  for (const [from, to] of PRESSES) {
    p.run(from!);
    stage.press("SW1", true);
    p.run(to!);
    stage.press("SW1", false);
  }
  p.run(SECONDS * 1000);
  return { lines: p.said.map((s) => s.line), levels, p };
}

/** The presses of a contact for the simulator; none where there is no contact. */
const pressesOf = (go: string | undefined, port: (hostPin: string) => string): string[] =>
  go
    ? [
        `hold:${port(go)}:1`,
        ...PRESSES.flatMap(([from, to]) => [`later:${port(go)}:${from}:0`, `later:${port(go)}:${to}:1`]),
      ]
    : [];

/** Lines that stand still: the last four seconds, when everything has been read, and what was told at a press. */
const steady = (lines: readonly string[]) =>
  lines.filter((l) => / pressed$/.test(l) || (/running [4-7] s$/.test(l) && !/Go pressed/.test(l)));

/** All parts of a board that hang on wires or on a bus, with their models. */
function models(c: Circuit, target: string) {
  // A bare chip's program times its buses by itself.
  const soft = target === "avr-c";
  let on = "";
  const parts = driverParts(c, "B1", target, (b) => b);
  const wires = new Map<string, NonNullable<ReturnType<typeof wirePart>>>();
  const bus = new Map<number, ReturnType<(typeof MODELS)[number]["make"]>>();
  for (const p of parts) {
    const [kind, model] = [DEVICES.find((d) => d.id === p.inst.part.id), MODELS.find((m) => m.part === p.inst.part.id)];
    // What hangs on another part is heard and told there.
    if (!kind || !model || p.through) continue;
    const part = model.make(model.worlds[0]!, {
      chain: p.chain,
      options: p.options,
      ...(p.outs !== undefined && { outs: p.outs, rests: p.rests ?? 0 }),
      ...(p.pulsed && { pulsed: true }),
    });
    const g = c.netlist.instance(p.inst.ref)!.part.groups.find((x) => x.kind === "i2c");
    if (p.address) bus.set(Number(p.address), part);
    // One of them stands for all on those two pins.
    if (p.address && g && soft) {
      if (!on) wires.set((on = p.inst.ref), busOnTwoWires(bus, g.pins.sda!, g.pins.scl!));
      continue;
    }
    const w = wirePart(c, p.inst.ref, kind.of(p), part, p.chain);
    if (w) wires.set(p.inst.ref, w);
  }
  return { bus, wires };
}

describe("the interpreter says what MicroPython says, line by line", () => {
  it.each([...CASES, DEMOS.moss].map((x) => [x.name, x] as const))("%s", async (_n, x) => {
    const c = circuit(BOARD3, x);
    const sim = bySim(c, "micropython");
    const { bus, wires } = models(c, "micropython");
    const board = c.netlist.instance("B1")!.part;
    const gpio = (hostPin: string) => findPin(board, hostPin)!.gpio!;
    const at = new Map(
      [...wires.keys()].flatMap((ref) => [...linesOf(c, ref)].map(([l, pin]) => [gpio(pin), `${ref}.${l}`] as const)),
    );
    const go = linesOf(c, "SW1").get("1");
    const presses = PRESSES.flatMap(([from, to]) => [`(${from}, 0)`, `(${to}, 1)`]).reverse();
    const world = `clock.END[0] = ${SECONDS * 1000}\n${go ? `machine.LEVELS_AT[${gpio(go)}] = [${presses.join(", ")}, (0, 1)]` : ""}`;
    const all = together(wires);
    const lines = wires.size ? { lines: new Lines(all), part: { write: () => true, read: () => null }, at } : undefined;
    const r = await runProgram(micropython.files(c), "main.py", world, bus, lines);
    expect(steady(r.lines)).toEqual(steady(sim.lines));
    expect(steady(sim.lines).length).toBeGreaterThanOrEqual(go ? 6 : 4);
    for (const ref of ["LED1", "LED2"].filter((k) => linesOf(c, k).size)) {
      const pin = gpio(linesOf(c, ref).get("A")!);
      const levels = r.log.filter((e) => e[0] === "toggle" && e[1] === pin).map((e) => e[2]);
      const wanted = sim.levels.get(ref) ?? [];
      // What comes at the very end of the time may be seen or not.
      const n = Math.min(8, levels.length, wanted.length);
      expect(levels.slice(0, n), ref).toEqual(wanted.slice(0, n));
      expect(Math.abs(levels.length - wanted.length), ref).toBeLessThanOrEqual(1);
    }
  });
});

describe("and what the compiled sketch says in simavr", () => {
  let exe = "";
  beforeAll(() => {
    coreArchive();
    exe = benchProgram();
  }, 240_000);
  it.each([...CASES, DEMOS.rain].map((x) => [x.name, x] as const))(
    "%s",
    async (_n, x) => {
      const c = circuit(BOARD5, x);
      const sim = bySim(c, "sketch");
      const { bus, wires } = models(c, "sketch");
      const board = c.netlist.instance("B1")!.part;
      const port = (hostPin: string) => findPin(board, hostPin)!.names!["avr-c"]!;
      const at = new Map(
        [...wires.keys()].flatMap((ref) => [...linesOf(c, ref)].map(([l, pin]) => [`${ref}.${l}`, pin] as const)),
      );
      const { elf } = compileSketch(`same-${x.demo ?? CASES.indexOf(x)}`, sketch.files(c), "starter");
      const go = linesOf(c, "SW1").get("1");
      const events = pressesOf(go, port);
      const lines = wires.size ? { part: together(wires), at } : undefined;
      const r = await simulateWith(exe, elf, SECONDS, bus, undefined, lines, events);
      expect(steady(r.lines)).toEqual(steady(sim.lines));
      for (const [ref, list] of sim.levels) {
        if (!/^LED/.test(ref)) continue;
        // Each pin is first driven at all.
        const n = r.toggles.get(port(linesOf(c, ref).get("A")!))!;
        expect(Math.abs(n - 1 - list.length), `${ref}: ${n} changes, not ${list.length}`).toBeLessThanOrEqual(1);
      }
    },
    60_000,
  );
});

/** The same parts on a bare chip: its program is another one, written for less memory. */
const CHIP = { ref: "B1", part: "chip/atmega328p-dip28" };
const MEGA328 = { mcu: "atmega328p", clock_Hz: 8_000_000 };
/** Lines of its console that stand still: contacts and readings by their references. */
const told = (lines: readonly string[]) => lines.filter((l) => /^running [4-7] s/.test(l) || l.startsWith("YL1 plan"));

describe("and what plain C says in simavr on a bare chip", () => {
  let exe = "";
  beforeAll(() => {
    exe = benchProgram();
  }, 60_000);
  it.each([...CASES, ...PLAIN].map((x) => [x.name, x] as const))(
    "%s",
    async (_n, x) => {
      const c = circuit(CHIP, x);
      const sim = bySim(c, "avr-c");
      const { wires } = models(c, "avr-c");
      const port = (hostPin: string) => findPin(c.netlist.instance("B1")!.part, hostPin)!.names!["avr-c"]!;
      const at = new Map(
        [...wires.keys()].flatMap((ref) => [...linesOf(c, ref)].map(([l, pin]) => [`${ref}.${l}`, port(pin)] as const)),
      );
      const { elf } = compileC(`same-${[...CASES, ...PLAIN].indexOf(x)}`, avrC.files(c), "main", MEGA328.mcu, MEGA328.clock_Hz); // prettier-ignore
      const go = linesOf(c, "SW1").get("1");
      const events = pressesOf(go, port);
      const lines = wires.size ? { part: together(wires), at } : undefined;
      const r = await simulateWith(exe, elf, SECONDS, new Map(), undefined, lines, events, MEGA328);
      expect(told(r.lines)).toEqual(told(sim.p.said.map((s) => s.line)));
      expect(told(r.lines).length).toBeGreaterThanOrEqual(5);
      for (const [ref, list] of sim.levels) {
        if (!/^LED/.test(ref)) continue;
        const n = r.toggles.get(port(linesOf(c, ref).get("A")!)) ?? 0;
        expect(Math.abs(n - 1 - list.length), `${ref}: ${n} changes, not ${list.length}`).toBeLessThanOrEqual(1);
      }
    },
    60_000,
  );
});
