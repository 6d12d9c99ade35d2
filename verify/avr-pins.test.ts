import { execFileSync } from "node:child_process";
import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { shippedCatalogue } from "../src/core/parts/catalogue/shipped";
import type { Pin } from "../src/core/parts/catalogue";
import { CORE, coreVariant } from "./avr/core-variant";

/** AVR boards and how many analogue inputs the packaged core's pin tables for them have. */
const BOARDS: { id: string; mcu: string; analog: number; led: number | null }[] = [
  { id: "board/atmega328p-long", mcu: "atmega328p", analog: 6, led: 13 },
  { id: "board/atmega328p-compact", mcu: "atmega328p", analog: 8, led: 13 },
  { id: "board/atmega32u4-long", mcu: "atmega32u4", analog: 12, led: 13 },
  { id: "board/atmega32u4-compact", mcu: "atmega32u4", analog: 12, led: null },
  { id: "board/atmega2560-long", mcu: "atmega2560", analog: 16, led: 13 },
];

const preprocess = (mcu: string, variant: string, input: string, ...more: string[]) =>
  execFileSync(
    "avr-g++",
    [
      "-E",
      ...more,
      "-x",
      "c++",
      `-mmcu=${mcu}`,
      "-DF_CPU=16000000L",
      "-DARDUINO_MAIN",
      "-I",
      `${CORE}/cores/arduino`,
      "-I",
      `${CORE}/variants/${variant}`,
      "-",
    ],
    { input, encoding: "utf8", maxBuffer: 64 << 20 },
  );

/** What the packaged core says about each pin, read out of its preprocessed headers at test time. */
function coreOf(mcu: string, variant: string) {
  const most = 100;
  const asks = Array.from({ length: most }, (_, n) => `IRQ ${n} digitalPinToInterrupt(${n}) ;`).join("\n");
  const text = preprocess(mcu, variant, `#include <Arduino.h>\n${asks}\n`, "-P");
  const list = (name: string) => {
    const body = new RegExp(`${name}\\[\\][^;={]*=\\s*\\{([^}]*)\\}`).exec(text)?.[1];
    return body
      ?.split(",")
      .map((x) => x.trim())
      .filter(Boolean);
  };
  const constants = new Map(
    [...text.matchAll(/static const uint8_t (\w+) = \(?(\d+)\)?;/g)].map((m) => [m[1]!, Number(m[2])]),
  );
  const macros = preprocess(mcu, variant, "#include <Arduino.h>\n", "-dM");
  const timers = new Map(
    [...macros.matchAll(/#define TIMER(\d)([A-D]?) (\d+)\b/g)].map((m) => [m[3]!, `timer${m[1]} ${m[2]}`]),
  );
  const ports = new Map(
    [...macros.matchAll(/#define (P[A-L]) (\d+)$/gm)].filter((m) => Number(m[2]) > 0).map((m) => [m[2]!, m[1]!]),
  );
  const bits = (mask: string) => {
    const shift = /<<\s*\(?(\d)/.exec(mask)?.[1];
    return shift ?? String(Math.log2(Number(mask)));
  };
  const port = list("digital_pin_to_port_PGM")!;
  const mask = list("digital_pin_to_bit_mask_PGM")!;
  const a0 = constants.get("A0")!;
  // Legs that are nothing but analogue inputs stand behind the digital tables.
  const name = (n: number) =>
    n >= port.length ? `ADC${n - a0}` : `${ports.get(port[n]!) ?? port[n]}${bits(mask[n]!)}`;
  const channels = list("analog_pin_to_channel_PGM");
  const analog = new Map<string, number>();
  for (let i = 0; constants.has(`A${i}`) && (!channels || i < channels.length); i++)
    analog.set(name(constants.get(`A${i}`)!), channels ? Number(channels[i]) : i);
  // The answers are arithmetic with the question's own number in it: (((2) == 2) ? 0 : …).
  const irq = new Map(
    [...text.matchAll(/IRQ (\d+) (.+) ;/g)].map((m) => [
      Number(m[1]),
      Number(new Function(`return ${m[2]!.replace(/\(uint8_t\)|\(int8_t\)/g, "")}`)()),
    ]),
  );
  return { port, name, timer: list("digital_pin_to_timer_PGM")!, timers, analog, irq, constants };
}

const pwmOf = (p: Pin) => {
  const o = p.offers!.find((x) => x.kind === "pwm");
  return o ? `${o.timer} ${o.channel}` : undefined;
};
const adcOf = (p: Pin) => p.offers!.find((o) => o.kind === "adc")?.channel;

describe.each(BOARDS)("$id equals the packaged core's pin tables", ({ id, mcu, analog, led }) => {
  const part = shippedCatalogue().get(id)!;
  const core = coreOf(mcu, coreVariant(mcu, analog));
  const slots = part.pins.filter((p) => p.gpio !== undefined);

  it("has the pins that the core has, none twice", () => {
    expect(new Set(slots.map((p) => p.gpio)).size).toBe(slots.length);
    const last = Math.max(
      core.port.length,
      ...[...core.constants].flatMap(([k, n]) => (/^A\d+$/.test(k) ? [n + 1] : [])),
    );
    for (const p of slots) expect(p.gpio!, p.label).toBeLessThan(last);
    expect(slots.length).toBeGreaterThan(15);
  });

  it.each(slots.map((p) => [p.label, p] as const))("%s", (_label, p) => {
    const n = p.gpio!;
    expect(p.names!["avr-c"]).toBe(core.name(n));
    const timer = core.timers.get(core.timer[n]!)?.trim();
    expect(pwmOf(p)?.trim()).toBe(timer === "" ? undefined : timer);
    expect(adcOf(p)).toBe(core.analog.get(core.name(n)));
    expect(p.offers!.some((o) => o.kind === "interrupt")).toBe((core.irq.get(n) ?? -1) >= 0);
  });

  it("counts the interrupts that the core counts", () => {
    const lines = slots.flatMap((p) => p.offers!.flatMap((o) => (o.kind === "interrupt" ? [o.line] : [])));
    expect(new Set(lines).size).toBe(lines.length);
  });

  it("puts the buses and the light where the core does", () => {
    const roles: [string, string, string][] = [
      ["SDA", "i2c", "sda"],
      ["SCL", "i2c", "scl"],
      ["SS", "spi", "cs"],
      ["MOSI", "spi", "mosi"],
      ["MISO", "spi", "miso"],
      ["SCK", "spi", "sck"],
    ];
    let found = 0;
    for (const [constant, kind, role] of roles) {
      const slot = slots.find((p) => p.gpio === core.constants.get(constant));
      if (!slot) continue;
      found++;
      expect(
        slot.offers!.some((o) => o.kind === kind && "role" in o && o.role === role),
        `${constant} at ${slot.label}`,
      ).toBe(true);
      const others = slots.filter(
        (p) =>
          p !== slot &&
          p.offers!.some((o) => o.kind === kind && "role" in o && o.role === role && "usual" in o && o.usual),
      );
      expect(
        others.map((p) => p.label),
        constant,
      ).toEqual([]);
    }
    expect(found).toBeGreaterThanOrEqual(2);
    const onboard = slots.filter((p) => p.hazards?.some((h) => h.kind === "onboard" && /LED/.test(h.says)));
    expect(onboard.map((p) => p.gpio)).toEqual(expect.arrayContaining(led === null ? [] : [led]));
  });
});

/** A bare chip's legs are named by port: each does what the same port does on the long board. */
describe("chip/atmega328p-dip28 does what its ports do in the core's tables", () => {
  const core = coreOf("atmega328p", "standard");
  const byPort = new Map(Array.from({ length: 20 }, (_, n) => [core.name(n), n]));
  const legs = shippedCatalogue()
    .get("chip/atmega328p-dip28")!
    .pins.filter((p) => p.offers && byPort.has(p.names?.["avr-c"] ?? ""));
  it("brings all twenty out", () => expect(legs).toHaveLength(20));
  it.each(legs.map((p) => [p.label, p] as const))("%s", (_label, p) => {
    const n = byPort.get(p.names!["avr-c"]!)!;
    const timer = core.timers.get(core.timer[n]!);
    expect(pwmOf(p)).toBe(timer);
    expect(adcOf(p)).toBe(core.analog.get(p.names!["avr-c"]!));
    expect(p.offers!.some((o) => o.kind === "interrupt")).toBe((core.irq.get(n) ?? -1) >= 0);
  });
});

describe("timers that the core itself takes", () => {
  const tone = fs
    .readFileSync(`${CORE}/cores/arduino/Tone.cpp`, "utf8")
    .split(/^#include.*$/m)
    .join("");
  it.each(BOARDS)("$id: a note comes from the timer that the core's tone takes", ({ id, mcu }) => {
    const text = execFileSync(
      "avr-g++",
      ["-E", "-P", `-mmcu=${mcu}`, "-x", "c++", "-include", "avr/io.h", "-DPROGMEM=", "-"],
      {
        input: tone,
        encoding: "utf8",
      },
    );
    const timer = /tone_pin_to_timer_PGM\[\]\s*=\s*\{\s*(\d)/.exec(text)![1];
    const timers = shippedCatalogue().get(id)!.board!.timers!;
    expect(Object.keys(timers).filter((t) => timers[t]!.drives?.includes("tone"))).toEqual([`timer${timer}`]);
  });
  it.each(BOARDS)("$id: the program's clock runs on timer 0", ({ id }) => {
    expect(fs.readFileSync(`${CORE}/cores/arduino/wiring.c`, "utf8")).toMatch(/(TIMER0_OVF_vect|TIM0_OVF_vect)/);
    expect(shippedCatalogue().get(id)!.board!.timers!.timer0!.fixed).toBeTruthy();
  });
});
