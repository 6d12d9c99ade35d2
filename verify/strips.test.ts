import { execFileSync } from "node:child_process";
import fs from "node:fs";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { STRIP_SEND } from "../src/core/firmware/drivers/strip-send";
import { gaps } from "../src/core/firmware/gaps";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { CHIPS } from "../src/core/firmware/targets/avr-c/chips";
import { sketch } from "../src/core/firmware/targets/sketch";
import { assign } from "../src/core/plan/assign";
import { catalogue, make, USB } from "../src/core/testing";
import { findPin } from "../src/core/parts/catalogue";
import { benchProgram, compileC, compileSketch, simulate, simulateChip } from "./avr/toolchain";
import { runOnHost } from "./host/compile";
import { WORK } from "./work-folder";

/** What the lights of a WS2812B take, nanoseconds: how long a 0 and a 1 are high; the next bit begins before it counts as the end. */
const ZERO = [250, 550] as const;
const ONE = [650, 950] as const;
const BIT_NS = [900, 1850] as const;

interface Pulse {
  high_ns: number;
  from_ns: number;
}
const bitsOf = (pulses: readonly Pulse[]) =>
  pulses.map(({ high_ns }) => {
    if (high_ns >= ZERO[0] && high_ns <= ZERO[1]) return 0;
    if (high_ns >= ONE[0] && high_ns <= ONE[1]) return 1;
    throw new Error(`high for ${high_ns} ns`);
  });
/** Every bit within its times, and as long as a bit inside of a byte. */
function bytesOf(pulses: readonly Pulse[]): number[] {
  const bits = bitsOf(pulses);
  for (const [i, p] of pulses.entries()) {
    const next = pulses[i + 1];
    if (!next || i % 8 === 7) continue;
    expect(next.from_ns - p.from_ns).toBeGreaterThanOrEqual(BIT_NS[0]);
    expect(next.from_ns - p.from_ns).toBeLessThanOrEqual(BIT_NS[1]);
  }
  return Array.from({ length: bits.length / 8 }, (_, k) =>
    bits.slice(8 * k, 8 * k + 8).reduce<number>((v, b) => v * 2 + b, 0),
  );
}

/** How long each high takes, from what the wire did. */
function pulsesOf(lines: readonly string[], ns: number): Pulse[] {
  const edges = lines.flatMap((l) => {
    const m = /^EDGE ([01]) (\d+)$/.exec(l);
    return m ? [[Number(m[1]), Number(m[2]) * ns] as const] : [];
  });
  return edges.flatMap(([level, from_ns], i) =>
    level && edges[i + 1] ? [{ from_ns, high_ns: edges[i + 1]![1] - from_ns }] : [],
  );
}
const light = (g: number, r: number, b: number) => [g, r, b, g, r, b];
/** Two lights in bring-up. */
const COLOURS = [...light(0, 255, 0), ...light(255, 0, 0), ...light(0, 0, 255), ...light(0, 0, 0)];
const STRIP = { ref: "M1", part: "module/ws2812b-strip", label: "Row", options: { pixels: 2, brightness: 1 } };
const SUPPLY = { ref: "S2", part: "supply/adapter-5v-2a" };

const BOARDS = [
  "board/esp32-thirtyeight",
  "board/esp8266-mini",
  "board/stm32f411-forty",
  "board/sam3x-long",
  "board/nrf52840-compact",
  "board/imxrt1062-compact",
];

describe("strips of lights by a counter of the chip's cycles", () => {
  it.each(BOARDS.map((b) => [b]))(
    "%s: two lights, each colour in its place, each bit as long as it may be",
    (board) => {
      const c = circuitOf(assign(make([{ ref: "B1", part: board }, USB, SUPPLY, STRIP]), catalogue).project, catalogue);
      expect(gaps(c)).toEqual([]);
      const { family } = c.netlist.instance("B1")!.part.board!;
      process.env.SCOPE = "1";
      let lines: string[];
      try {
        lines = runOnHost(sketch.files(c), "bringup", 1, "", [], family);
      } finally {
        delete process.env.SCOPE;
      }
      // Dark at the start, then red, green, blue and dark.
      expect(bytesOf(pulsesOf(lines, 1)).slice(0, 30)).toEqual([...light(0, 0, 0), ...COLOURS]);
    },
  );
});

describe("strips of lights on AVR, cycle by cycle in simavr", () => {
  const bench = () => benchProgram();
  const port = (c: Circuit, pin = "DIN", ref = "M1") => {
    const b = c.netlist.bindings.find((x) => x.ref === ref && x.pin === pin)!;
    return findPin(c.netlist.instance("B1")!.part, b.hostPin)!.names!["avr-c"]!;
  };
  const planned = (board: object, ...more: object[]) =>
    circuitOf(assign(make([board as never, USB, SUPPLY, STRIP, ...(more as never[])]), catalogue).project, catalogue);
  const CHIP_CASES = [
    ["chip/atmega328p-dip28", "8000000"],
    ["chip/atmega328p-dip28", "16000000"],
    ["chip/attiny85-dip8", "8000000"],
    ["chip/attiny84-dip14", "8000000"],
  ] as const;
  it.each(CHIP_CASES)("plain C on %s at %s Hz", (part, clock) => {
    const c = planned(
      { ref: "B1", part, options: { clock_Hz: clock } },
      {
        ref: "SW1",
        part: "discrete/button",
        label: "Go",
      },
    );
    expect(gaps(c)).toEqual([]);
    const { chip, clock_Hz, flash_kB } = c.netlist.instance("B1")!.part.board!;
    expect(clock_Hz).toBe(Number(clock));
    const { mcu } = CHIPS[chip]!;
    const files = avrC.files(c);
    const name = `strip-${part.split("/")[1]}-${clock}`;
    const up = compileC(name, files, "bringup", mcu, clock_Hz);
    const scope = `scope:${port(c)}`;
    const ns = 1e9 / clock_Hz;
    const said = simulateChip(bench(), up.elf, 2.2, [scope], mcu, clock_Hz).lines;
    expect(bytesOf(pulsesOf(said, ns)).slice(0, 24)).toEqual(COLOURS);
    // The contact works it: nothing is sent while nothing changes.
    const starter = compileC(name, files, "main", mcu, clock_Hz);
    expect(starter.flash).toBeLessThan(flash_kB * 1024);
    expect(starter.ram).toBeLessThan(100);
    const key = port(c, "1", "SW1");
    for (const [level, bytes] of [
      [1, light(0, 0, 0)],
      [0, light(255, 255, 160)],
    ] as const) {
      const lines = simulateChip(bench(), starter.elf, 1.5, [scope, `hold:${key}:${level}`], mcu, clock_Hz).lines;
      expect(bytesOf(pulsesOf(lines, ns))).toEqual(bytes);
    }
  });
  it("a light runs along it where nobody tells it anything, and as many as a rule says are lit", () => {
    const c = planned({ ref: "B1", part: "chip/attiny85-dip8" });
    const { elf } = compileC("strip-runs", avrC.files(c), "main", "attiny85", 8_000_000);
    const lines = simulateChip(bench(), elf, 0.21, [`scope:${port(c)}`], "attiny85", 8_000_000).lines;
    const [one, all] = [
      [255, 255, 160],
      [60, 40, 20],
    ];
    expect(bytesOf(pulsesOf(lines, 125)).slice(0, 18)).toEqual([...one, ...all, ...all, ...one, ...one, ...all]);
    const knob = planned(
      { ref: "B1", part: "chip/attiny85-dip8" },
      {
        ref: "SW1",
        part: "discrete/button",
        label: "Go",
      },
    );
    const when = { ref: "SW1", out: "pressed", is: 1 };
    const ruled = circuitOf({ ...knob.project, rules: [{ when, do: { ref: "M1", act: "set", value: 1 } }] }, catalogue);
    const built = compileC("strip-ruled", avrC.files(ruled), "main", "attiny85", 8_000_000);
    const told = simulateChip(
      bench(),
      built.elf,
      0.5,
      [`scope:${port(ruled)}`, `hold:${port(ruled, "1", "SW1")}:0`],
      "attiny85",
      8_000_000,
    ).lines;
    expect(bytesOf(pulsesOf(told, 125)).slice(-6)).toEqual([...one, 0, 0, 0]);
  });
  it("is told where a chip is too slow or too small for it", () => {
    const slow = planned({ ref: "B1", part: "chip/attiny85-dip8", options: { clock_Hz: "1000000" } });
    expect(gaps(slow)).toEqual([expect.objectContaining({ why: expect.stringContaining("at 1 MHz") as string })]);
    const small = planned({ ref: "B1", part: "chip/attiny13a-dip8" });
    expect(gaps(small)).toEqual([expect.objectContaining({ why: expect.stringContaining("1 kB") as string })]);
  });
  it("a sketch at 16 MHz", () => {
    const c = planned({ ref: "B1", part: "board/atmega328p-long" });
    const { elf } = compileSketch("strip-sketch", sketch.files(c), "bringup");
    const said = simulate(bench(), elf, 2.5, [`scope:${port(c)}`]).lines;
    expect(bytesOf(pulsesOf(said, 62.5)).slice(0, 30)).toEqual([...light(0, 0, 0), ...COLOURS]);
  }, 120_000);
});

/** Cycles of a Cortex-M0+ by its manual: a branch that is taken takes two, a store to the pins by their own bus one. */
const COSTS = { taken: 2, other: 1 };

/** Runs the loop of a byte, instruction by instruction, from what the assembler made of it. */
function runsOnM0(text: string, byte: number): Pulse[] {
  const code = new Map<number, { at: number; op: string; args: string[] }>();
  const order: number[] = [];
  for (const m of text.matchAll(/^\s*([0-9a-f]+):\t[0-9a-f ]+\t(\S+)\t?([^\n;@<]*)/gm)) {
    const at = parseInt(m[1]!, 16);
    code.set(at, { at, op: m[2]!.replace(/\.n$/, ""), args: m[3]!.split(",").map((x) => x.trim()) });
    order.push(at);
  }
  // The loop: from its first store to the branch that goes back there.
  const stores = order.filter((at) => code.get(at)!.op === "str");
  const back = order.findLast((at) => {
    const i = code.get(at)!;
    return i.op === "bne" && stores.includes(parseInt(i.args[0]!, 16));
  })!;
  const first = parseInt(code.get(back)!.args[0]!, 16);
  const [high, low] = [code.get(first)!.args[1]!, code.get(stores.find((at) => at > first)!)!.args[1]!];
  expect(high).not.toBe(low);
  const shift = order.map((at) => code.get(at)!).find((i) => i.at > first && i.op === "lsls")!;
  const counter = code.get(order[order.indexOf(back) - 1]!)!.args[0]!;
  const r = new Map<string, number>([
    [shift.args[0]!, byte * 2 ** 24],
    [counter, 8],
  ]);
  let at = first;
  let now = 0;
  let zero = false;
  let carry = false;
  const pulses: Pulse[] = [];
  for (let steps = 0; steps < 5000; steps++) {
    const i = code.get(at)!;
    const next = order[order.indexOf(at) + 1]!;
    const to = parseInt(i.args[0]!, 16);
    let go = next;
    const [dest, source, by] = i.args;
    if (i.op === "str") {
      if (source === high) pulses.push({ from_ns: now, high_ns: NaN });
      else if (Number.isNaN(pulses.at(-1)!.high_ns)) pulses.at(-1)!.high_ns = now - pulses.at(-1)!.from_ns;
    } else if (i.op === "movs") r.set(dest!, Number(source!.slice(1)));
    else if (i.op === "subs") {
      const v = r.get(dest!)! - Number((by ?? source)!.slice(1));
      r.set(dest!, v);
      zero = v === 0;
    } else if (i.op === "lsls") {
      const v = r.get(source!)! * 2;
      carry = v >= 2 ** 32;
      r.set(dest!, v % 2 ** 32);
    } else if (i.op === "bne") go = zero ? next : to;
    else if (i.op === "bcs") go = carry ? to : next;
    else throw new Error(`${i.op} is not expected in the loop`);
    now += go === next ? COSTS.other : COSTS.taken;
    if (at === back && go === next)
      return pulses.map((p) => ({ from_ns: p.from_ns / 0.048, high_ns: p.high_ns / 0.048 }));
    at = go;
  }
  throw new Error("the loop does not end");
}

describe("strips of lights by counted cycles", () => {
  const dir = path.join(WORK, "strips");
  it("a Cortex-M0+ at 48 MHz, assembled: each bit as long as it may be", () => {
    fs.mkdirSync(dir, { recursive: true });
    const source = path.join(dir, "send.cpp");
    fs.writeFileSync(
      source,
      `#include <stdint.h>
struct PortGroup { struct { volatile uint32_t reg; } OUTSET, OUTCLR; };
struct PortBus { PortGroup Group[2]; };
#define PORT_IOBUS ((PortBus *)0x60000000)
struct Pin { int ulPort; uint32_t ulPin; };
extern const Pin g_APinDescription[];
void noInterrupts();
void interrupts();
void delayMicroseconds(uint32_t);
${STRIP_SEND.samd!.code}
void send(uint8_t pin, const uint8_t *bytes, uint16_t n) { stripSend(pin, bytes, n); }
`,
    );
    const object = path.join(dir, "send.o");
    const flags = ["-mcpu=cortex-m0plus", "-mthumb", "-Os", "-ffreestanding", "-Wall", "-Wextra", "-Werror"];
    execFileSync("arm-none-eabi-g++", [...flags, "-c", source, "-o", object]);
    const text = execFileSync("arm-none-eabi-objdump", ["-d", object], { encoding: "utf8" });
    for (const byte of [0, 255, 0xa5, 0x01, 0x80]) {
      const pulses = runsOnM0(text, byte);
      expect(pulses).toHaveLength(8);
      expect(bytesOf(pulses)).toEqual([byte]);
    }
  });
});
