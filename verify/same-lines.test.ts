import fs from "node:fs";
import { beforeAll, describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import { readProject, type Rule } from "../src/core/project";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileC, coreArchive, simulateWith } from "./avr/toolchain";
import { linesOf } from "./parts";
import { together } from "./parts/together";
import { bySim, models, pressesOf, sameInPython, sameInSketch, SECONDS } from "./same";

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

describe("the interpreter says what MicroPython says, line by line", () => {
  it.each([...CASES, DEMOS.moss].map((x) => [x.name, x] as const))("%s", async (_n, x) => {
    const c = circuit(BOARD3, x);
    await sameInPython(c);
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
      await sameInSketch(c, String(x.demo ?? CASES.indexOf(x)), exe);
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
