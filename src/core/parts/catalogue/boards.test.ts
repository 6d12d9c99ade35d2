import { describe, expect, it } from "vitest";
import { catalogue } from "../../testing";
import type { Offer, Pin } from ".";

/**
 * What the chips' published function tables say, written down as rules and compared pin by pin with the data. AVR boards
 * are compared with the packaged core's own headers instead (verify/avr-pins.test.ts).
 */
const slots = (id: string) => catalogue.get(id)!.pins.filter((p) => p.gpio !== undefined && p.offers?.length);
const said = (p: Pin, kind: Offer["kind"]) => p.offers!.filter((o) => o.kind === kind);
const adc = (p: Pin) => p.offers!.flatMap((o) => (o.kind === "adc" ? [`${o.unit}:${o.channel}`] : []))[0];
const touch = (p: Pin) => p.offers!.flatMap((o) => (o.kind === "touch" ? [o.channel] : []))[0];
const dac = (p: Pin) => p.offers!.flatMap((o) => (o.kind === "dac" ? [o.channel] : []))[0];
const pwm = (p: Pin) => p.offers!.flatMap((o) => (o.kind === "pwm" ? [`${o.timer}.${o.channel}`] : []))[0];
const line = (p: Pin) => p.offers!.flatMap((o) => (o.kind === "interrupt" ? [o.line] : []))[0];
const buses = (p: Pin, kind: "i2c" | "spi" | "uart") =>
  p.offers!.flatMap((o) => (o.kind === kind ? [`${o.bus}.${o.role}`] : [])).sort();
const has = (p: Pin, kind: string) => p.hazards?.some((h) => h.kind === kind) ?? false;
const digital = (p: Pin) => p.offers!.find((o) => o.kind === "digital");
const usual = (id: string, kind: string) =>
  Object.fromEntries(
    slots(id).flatMap((p) =>
      p.offers!.flatMap((o) =>
        o.kind === kind && "role" in o && "usual" in o && o.usual ? [[`${o.bus}.${o.role}`, p.gpio]] : [],
      ),
    ),
  );
const from =
  <T>(table: Record<number, T>) =>
  (p: Pin) =>
    table[p.gpio!];
/** Channels counted up from the first pin of a run of pins. */
const run = (first: number, last: number, prefix: string, start = 0) =>
  Object.fromEntries(Array.from({ length: last - first + 1 }, (_, i) => [first + i, `${prefix}:${start + i}`]));

/** RP2040 and RP2350 (first 30 pins): every function follows from the number of the pin. */
describe.each(["board/rp2040-forty", "board/rp2040-mini", "board/rp2350-forty"])("%s", (id) => {
  it.each(slots(id).map((p) => [p.label, p] as const))("%s", (label, p) => {
    const g = p.gpio!;
    expect(label).toBe(`GP${g}`);
    expect(pwm(p)).toBe(`slice${(g >> 1) & 7}.${g & 1 ? "b" : "a"}`);
    expect(buses(p, "i2c")).toEqual([`i2c${(g >> 1) & 1}.${g & 1 ? "scl" : "sda"}`]);
    expect(buses(p, "spi")).toEqual([`spi${(g >> 3) & 1}.${["miso", "cs", "sck", "mosi"][g & 3]}`]);
    expect(buses(p, "uart")).toContain(`uart${[0, 1, 1, 0, 0, 1, 1, 0][g >> 2]}.${["tx", "rx", "cts", "rts"][g & 3]}`);
    expect(adc(p)).toBe(g >= 26 && g <= 29 ? `adc:${g - 26}` : undefined);
    // The second chip's pull-downs latch up by an erratum: the data does not offer them.
    const pulls = id.includes("rp2350") ? ["up"] : ["up", "down"];
    expect(digital(p)).toMatchObject({ in: true, out: true, pull: pulls });
    expect(said(p, "interrupt")).toHaveLength(1);
  });
  it("brings no pin out twice", () => {
    expect(new Set(slots(id).map((p) => p.gpio)).size).toBe(slots(id).length);
  });
});

/** ESP32: pins 34 to 39 only listen; converter 2 is lost while the radio runs; any output can be any bus. */
describe("board/esp32-thirtyeight", () => {
  const pins = slots("board/esp32-thirtyeight");
  const adcOf = from({
    ...Object.fromEntries(
      Object.entries({ 36: 0, 37: 1, 38: 2, 39: 3, 32: 4, 33: 5, 34: 6, 35: 7 }).map(([g, c]) => [g, `adc1:${c}`]),
    ),
    ...Object.fromEntries(
      Object.entries({ 4: 0, 0: 1, 2: 2, 15: 3, 13: 4, 12: 5, 14: 6, 27: 7, 25: 8, 26: 9 }).map(([g, c]) => [
        g,
        `adc2:${c}`,
      ]),
    ),
  });
  const touchOf = from({ 4: 0, 0: 1, 2: 2, 15: 3, 13: 4, 12: 5, 14: 6, 27: 7, 33: 8, 32: 9 });
  it.each(pins.map((p) => [p.label, p] as const))("%s", (_l, p) => {
    const g = p.gpio!;
    const listens = g >= 34;
    expect(adc(p)).toBe(adcOf(p));
    expect(touch(p)).toBe(touchOf(p));
    expect(dac(p)).toBe(({ 25: 0, 26: 1 } as Record<number, number>)[g]);
    expect(digital(p)).toMatchObject({ in: true, out: !listens, pull: listens ? [] : ["up", "down"] });
    expect(has(p, "input-only")).toBe(listens);
    expect(has(p, "strapping")).toBe([0, 2, 5, 12, 15].includes(g));
    expect(has(p, "adc-radio")).toBe(adcOf(p)?.startsWith("adc2") ?? false);
    expect(has(p, "console")).toBe([1, 3].includes(g));
    expect(Boolean(pwm(p))).toBe(!listens);
    expect(buses(p, "i2c").length > 0).toBe(!listens);
    expect(buses(p, "spi").some((b) => b.endsWith(".sck"))).toBe(!listens);
  });
  it("keeps off the flash, and knows the pins that libraries expect", () => {
    const flash = catalogue.get("board/esp32-thirtyeight")!.pins.filter((p) => /^GPIO([6-9]|1[01])$/.test(p.label));
    expect(flash).toHaveLength(6);
    for (const p of flash)
      expect(
        p.hazards!.map((h) => h.kind),
        p.label,
      ).toEqual(["reserved"]);
    expect(usual("board/esp32-thirtyeight", "i2c")).toEqual({ "i2c0.sda": 21, "i2c0.scl": 22 });
    expect(usual("board/esp32-thirtyeight", "spi")).toMatchObject({
      "spi3.sck": 18,
      "spi3.miso": 19,
      "spi3.mosi": 23,
      "spi3.cs": 5,
    });
  });
});

describe("board/esp32-s3-fortyfour", () => {
  const adcOf = from({ ...run(1, 10, "adc1"), ...run(11, 20, "adc2") });
  it.each(slots("board/esp32-s3-fortyfour").map((p) => [p.label, p] as const))("%s", (_l, p) => {
    const g = p.gpio!;
    expect(adc(p)).toBe(adcOf(p));
    expect(touch(p)).toBe(g >= 1 && g <= 14 ? g : undefined);
    expect(dac(p)).toBeUndefined();
    expect(has(p, "strapping")).toBe([0, 3, 45, 46].includes(g));
    expect(has(p, "adc-radio")).toBe(g >= 11 && g <= 20);
    expect(has(p, "reserved")).toBe(g >= 35 && g <= 37);
    expect(has(p, "console")).toBe([19, 20, 43, 44].includes(g));
  });
});

describe("board/esp32-c3-mini", () => {
  it.each(slots("board/esp32-c3-mini").map((p) => [p.label, p] as const))("%s", (_l, p) => {
    const g = p.gpio!;
    expect(adc(p)).toBe(g <= 4 ? `adc1:${g}` : undefined);
    expect(has(p, "strapping")).toBe([2, 8, 9].includes(g));
    expect(g === 18 || g === 19).toBe(false);
  });
});

describe("board/esp8266-mini", () => {
  const gpio: Record<string, number> = {
    D0: 16,
    D1: 5,
    D2: 4,
    D3: 0,
    D4: 2,
    D5: 14,
    D6: 12,
    D7: 13,
    D8: 15,
    TX: 1,
    RX: 3,
  };
  it.each(Object.entries(gpio))("%s is GPIO%i", (label, g) => {
    const p = catalogue.get("board/esp8266-mini")!.pins.find((x) => x.label === label)!;
    expect(p.gpio ?? Number(/\d+$/.exec(p.aliases!.find((a) => a.startsWith("GPIO"))!)![0])).toBe(g);
    expect(has(p, "strapping")).toBe([0, 2, 15].includes(g));
    // Pin 16 sits on the clock's side of the chip: no interrupt, only a pull-down.
    expect(said(p, "interrupt")).toHaveLength(g === 16 ? 0 : 1);
    expect(digital(p)).toMatchObject({ pull: [g === 16 ? "down" : "up"] });
    expect(has(p, "console")).toBe(g === 1 || g === 3);
  });
});

/** STM32: interrupt lines follow the pin number; timers, converters and 5 V tolerance by table. */
const STM32: Record<
  string,
  { adc: string[]; pwm: Record<string, string>; usual: Record<string, string>; plain: string[] }
> = {
  "board/stm32f103-forty": {
    adc: ["PA0", "PA1", "PA2", "PA3", "PA4", "PA5", "PA6", "PA7", "PB0", "PB1"],
    pwm: {
      PA0: "TIM2.1",
      PA1: "TIM2.2",
      PA2: "TIM2.3",
      PA3: "TIM2.4",
      PA6: "TIM3.1",
      PA7: "TIM3.2",
      PB0: "TIM3.3",
      PB1: "TIM3.4",
      PA8: "TIM1.1",
      PA9: "TIM1.2",
      PA10: "TIM1.3",
      PA11: "TIM1.4",
      PB6: "TIM4.1",
      PB7: "TIM4.2",
      PB8: "TIM4.3",
      PB9: "TIM4.4",
    },
    usual: {
      "i2c1.scl": "PB6",
      "i2c1.sda": "PB7",
      "i2c2.scl": "PB10",
      "i2c2.sda": "PB11",
      "spi1.sck": "PA5",
      "spi1.miso": "PA6",
      "spi1.mosi": "PA7",
      "spi2.sck": "PB13",
      "uart1.tx": "PA9",
      "uart1.rx": "PA10",
      "uart2.tx": "PA2",
      "uart3.tx": "PB10",
    },
    plain: ["PA0", "PA1", "PA2", "PA3", "PA4", "PA5", "PA6", "PA7", "PB0", "PB1", "PB5", "PC13", "PC14", "PC15"],
  },
  "board/stm32f411-forty": {
    adc: ["PA0", "PA1", "PA2", "PA3", "PA4", "PA5", "PA6", "PA7", "PB0", "PB1"],
    pwm: {
      PA8: "TIM1.1",
      PA9: "TIM1.2",
      PA10: "TIM1.3",
      PA11: "TIM1.4",
      PB6: "TIM4.1",
      PB7: "TIM4.2",
      PB8: "TIM4.3",
      PB9: "TIM4.4",
      PB0: "TIM3.3",
      PB1: "TIM3.4",
      PB10: "TIM2.3",
    },
    usual: {
      "i2c1.scl": "PB6",
      "i2c1.sda": "PB7",
      "i2c2.scl": "PB10",
      "i2c2.sda": "PB3",
      "i2c3.scl": "PA8",
      "i2c3.sda": "PB4",
      "spi1.sck": "PA5",
      "uart1.tx": "PA9",
      "uart2.tx": "PA2",
      "uart6.tx": "PA11",
    },
    plain: ["PA0", "PA4", "PA5", "PB5", "PC13", "PC14", "PC15"],
  },
};
describe.each(Object.entries(STM32))("%s", (id, table) => {
  const pins = catalogue.get(id)!.pins.filter((p) => p.offers?.length);
  it.each(pins.map((p) => [p.label, p] as const))("%s", (label, p) => {
    expect(line(p)).toBe(`EXTI${label.slice(2)}`);
    const channel = table.adc.indexOf(label);
    expect(adc(p)).toBe(channel < 0 ? undefined : `adc:${channel}`);
    if (table.pwm[label]) expect(pwm(p)).toBe(table.pwm[label]);
    // Tolerant pins have a level set of their own whose ceiling does not hang on the supply alone.
    expect(p.level === "ft").toBe(!table.plain.includes(label));
    for (const [role, at] of Object.entries(table.usual))
      if (at === label) {
        const [bus, r] = role.split(".");
        expect(
          p.offers!.some((o) => "bus" in o && o.bus === bus && o.role === r && o.usual),
          role,
        ).toBe(true);
      }
  });
  it("takes 5 V only where the data sheet says so", () => {
    const { levels } = catalogue.get(id)!;
    expect(Number(levels.ft!.absMax)).toBeGreaterThanOrEqual(5.25);
    expect(String(levels.main!.absMax)).toContain("V");
  });
});

/** The compact 30-pin boards share one header; what the pins can do differs with the chip. */
const COMPACT_LEFT = ["D13", "3V3", "AREF", "A0", "A1", "A2", "A3", "A4", "A5", "A6", "A7"];
describe.each(["board/samd21-compact", "board/nrf52840-compact", "board/atmega328p-compact"])("%s", (id) => {
  it("has the pins in their printed order", () => {
    const left = catalogue
      .get(id)!
      .pins.filter((p) => p.at?.header === "L")
      .sort((a, b) => a.at!.index - b.at!.index);
    expect(left.slice(0, 11).map((p) => p.label)).toEqual(COMPACT_LEFT);
    const right = catalogue
      .get(id)!
      .pins.filter((p) => p.at?.header === "R")
      .sort((a, b) => a.at!.index - b.at!.index);
    expect(right.slice(0, 11).map((p) => p.label)).toEqual([
      "D12",
      "D11",
      "D10",
      "D9",
      "D8",
      "D7",
      "D6",
      "D5",
      "D4",
      "D3",
      "D2",
    ]);
    expect(right.at(-1)!.label).toBe("D1");
  });
});

/** SAMD21: port pin of each printed pin, and what follows from it: converter channel and interrupt line. */
describe("board/samd21-compact follows the chip's ports", () => {
  const port: Record<string, [string, number | null, number]> = {
    // label: port, converter channel, external interrupt
    A0: ["PA02", 0, 2],
    A1: ["PB02", 10, 2],
    A2: ["PA11", 19, 11],
    A3: ["PA10", 18, 10],
    A4: ["PB08", 2, 8],
    A5: ["PB09", 3, 9],
    A6: ["PA09", 17, 9],
    A7: ["PB03", 11, 3],
    D2: ["PB10", null, 10],
    D3: ["PB11", null, 11],
    D4: ["PA07", null, 7],
    D5: ["PA05", null, 5],
    D6: ["PA04", null, 4],
    D7: ["PA06", null, 6],
    D8: ["PA18", null, 2],
    D9: ["PA20", null, 4],
    D10: ["PA21", null, 5],
    D11: ["PA16", null, 0],
    D12: ["PA19", null, 3],
    D13: ["PA17", null, 1],
  };
  it.each(Object.entries(port))("%s", (label, [, channel, irq]) => {
    const p = catalogue.get("board/samd21-compact")!.pins.find((x) => x.label === label)!;
    if (channel !== null) expect(adc(p)).toBe(`adc:${channel}`);
    expect(line(p)).toBe(`EXTINT${irq}`);
    expect(dac(p)).toBe(label === "A0" ? 0 : undefined);
  });
});

describe("board/nrf52840-compact", () => {
  const channel: Record<string, number> = { A0: 2, A1: 3, A2: 6, A3: 5, A4: 7, A5: 0, A6: 4, A7: 1 };
  it("has the eight converter inputs, each once", () => {
    const pins = slots("board/nrf52840-compact");
    const seen = pins.flatMap((p) => (adc(p) ? [[p.label, adc(p)]] : []));
    expect(Object.fromEntries(seen)).toEqual(
      Object.fromEntries(Object.entries(channel).map(([k, v]) => [k, `adc:${v}`])),
    );
    // Any pin can be any line of a bus.
    for (const p of pins) expect(buses(p, "i2c"), p.label).toContain("i2c0.sda");
  });
});

/** The 40-pin header of small Linux boards: physical position to GPIO number, and the fixed functions. */
describe("board/linux-forty", () => {
  const position: Record<number, number> = {
    3: 2,
    5: 3,
    7: 4,
    8: 14,
    10: 15,
    11: 17,
    12: 18,
    13: 27,
    15: 22,
    16: 23,
    18: 24,
    19: 10,
    21: 9,
    22: 25,
    23: 11,
    24: 8,
    26: 7,
    29: 5,
    31: 6,
    32: 12,
    33: 13,
    35: 19,
    36: 16,
    37: 26,
    38: 20,
    40: 21,
  };
  const part = catalogue.get("board/linux-forty")!;
  it.each(Object.entries(position))("position %s is GPIO%i", (at, g) => {
    const p = part.pins.find((x) => x.aliases?.includes(`P${at}`))!;
    expect(p.label).toBe(`GPIO${g}`);
    expect(p.at).toEqual({ header: Number(at) % 2 ? "L" : "R", index: Math.ceil(Number(at) / 2) });
    expect(adc(p)).toBeUndefined();
    expect(Boolean(pwm(p))).toBe([12, 13, 18, 19].includes(g));
  });
  it("has supplies and grounds where the header has them", () => {
    const at = (n: number) => part.pins.find((p) => p.aliases?.includes(`P${n}`))!;
    for (const n of [1, 17]) expect(at(n).label).toMatch(/^3V3/);
    for (const n of [2, 4]) expect(at(n).label).toMatch(/^5V/);
    for (const n of [6, 9, 14, 20, 25, 30, 34, 39]) expect(at(n).role, `P${n}`).toBe("ground");
    for (const n of [27, 28]) expect(has(at(n), "reserved"), `P${n}`).toBe(true);
    expect(usual("board/linux-forty", "i2c")).toEqual({ "i2c1.sda": 2, "i2c1.scl": 3 });
    expect(usual("board/linux-forty", "uart")).toEqual({ "uart0.tx": 14, "uart0.rx": 15 });
    expect(usual("board/linux-forty", "spi")).toMatchObject({
      "spi0.mosi": 10,
      "spi0.miso": 9,
      "spi0.sck": 11,
      "spi0.cs": 8,
    });
  });
});

/** SAM3X long board: converter channels run backwards, two true analogue outputs, every digital pin can interrupt. */
describe("board/sam3x-long", () => {
  it.each(slots("board/sam3x-long").map((p) => [p.label, p] as const))("%s", (label, p) => {
    const a = /^A(\d+)$/.exec(label);
    const n = Number(a?.[1]);
    expect(adc(p)).toBe(a ? `adc:${n < 8 ? 7 - n : n + 2}` : undefined);
    expect(dac(p)).toBe(label === "DAC0" ? 0 : label === "DAC1" ? 1 : undefined);
    expect(said(p, "interrupt")).toHaveLength(1);
    expect(Boolean(pwm(p))).toBe(/^D([2-9]|1[0-3])$/.test(label));
  });
  it("shares its timers as the chip does: two outputs of one counter have one frequency", () => {
    const of = (label: string) => pwm(slots("board/sam3x-long").find((p) => p.label === label)!)!;
    // Counter, outputs a and b, from the ports behind the printed pins.
    for (const [timer, a, b] of [
      ["TC0", "D2", "D13"],
      ["TC6", "D5", "D4"],
      ["TC7", "D3", "D10"],
      ["TC8", "D11", "D12"],
    ] as const)
      expect([of(a), of(b)]).toEqual([`${timer}.a`, `${timer}.b`]);
    // The four channels of the other kind run for themselves, counted down from D6.
    expect(["D6", "D7", "D8", "D9"].map(of)).toEqual([7, 6, 5, 4].map((n) => `PWM.${n}`));
  });
  it("its analogue outputs reach a sixth to five sixths, and the pins of its other bus are ordinary pins, too", () => {
    const { pins } = catalogue.get("board/sam3x-long")!;
    for (const label of ["DAC0", "DAC1"]) {
      const o = pins.find((p) => p.label === label)!.offers!.find((x) => x.kind === "dac");
      expect(o?.kind === "dac" && [o.span!.low * 3.3, o.span!.high * 3.3].map((v) => v.toFixed(2))).toEqual([
        "0.55",
        "2.75",
      ]);
    }
    for (const [label, n] of [
      ["CANRX", 68],
      ["CANTX", 69],
    ] as const) {
      const p = pins.find((x) => x.label === label)!;
      expect(p.gpio).toBe(n);
      expect(p.offers!.map((o) => o.kind)).toEqual(["digital", "interrupt", "can"]);
    }
  });
});

/** STM32F411: lines of its five SPI controllers and of its second timers, as the alternate function table has them. */
describe("board/stm32f411-forty has the alternatives of its pins", () => {
  const SPI: Record<string, Partial<Record<"sck" | "miso" | "mosi", string[]>>> = {
    spi1: { sck: ["PA5", "PB3"], miso: ["PA6", "PB4"], mosi: ["PA7", "PB5"] },
    spi2: { sck: ["PB10", "PB13"], miso: ["PB14"], mosi: ["PB15"] },
    spi3: { sck: ["PB12", "PB3"], miso: ["PB4"], mosi: ["PB5"] },
    spi4: { sck: ["PB13"], miso: ["PA11"], mosi: ["PA1"] },
    spi5: { sck: ["PB0"], miso: ["PA12"], mosi: ["PA10", "PB8"] },
  };
  const pins = catalogue.get("board/stm32f411-forty")!.pins;
  const at = (bus: string, role: string) =>
    pins
      .filter((p) => p.offers?.some((o) => "bus" in o && o.bus === bus && o.role === role))
      .map((p) => p.label)
      .sort();
  it.each(Object.entries(SPI))("%s", (bus, lines) => {
    for (const [role, labels] of Object.entries(lines)) expect(at(bus, role), role).toEqual(labels);
  });
  it("two I2C data lines more, and the first four pins on two timers each", () => {
    expect(at("i2c2", "sda")).toEqual(["PB3", "PB9"]);
    expect(at("i2c3", "sda")).toEqual(["PB4", "PB8"]);
    for (let n = 0; n < 4; n++) {
      const p = pins.find((x) => x.label === `PA${n}`)!;
      const list = said(p, "pwm").map((o) => (o.kind === "pwm" ? `${o.timer}.${o.channel}` : ""));
      expect(list).toEqual(expect.arrayContaining([`TIM5.${n + 1}`, `TIM2.${n + 1}`]));
    }
  });
});

it("pulls of the MKL26 go both ways on every pin", () => {
  for (const p of slots("board/mkl26z64-compact")) expect(digital(p), p.label).toMatchObject({ pull: ["up", "down"] });
  expect(catalogue.get("board/mkl26z64-compact")!.levels.main!.pullDown_ohm).toBeDefined();
});
it("board/nrf52840-compact sends on D0 and hears on D1", () =>
  expect(
    Object.fromEntries(
      slots("board/nrf52840-compact").flatMap((p) =>
        p.offers!.flatMap((o) => (o.kind === "uart" && o.usual ? [[o.role, p.label]] : [])),
      ),
    ),
  ).toEqual({ tx: "D0", rx: "D1" }));

/** KL26: only ports A, C and D raise interrupts; touch and timer channels by port pin. */
describe("board/mkl26z64-compact", () => {
  const silent = ["D0", "D1", "D5", "D16", "D17", "D18", "D19"];
  it.each(slots("board/mkl26z64-compact").map((p) => [p.label, p] as const))("%s", (label, p) => {
    expect(said(p, "interrupt").length > 0).toBe(!silent.includes(label));
    const n = p.gpio!;
    expect(Boolean(adc(p))).toBe(n >= 14);
    expect(Boolean(pwm(p))).toBe([3, 4, 6, 9, 10, 16, 17, 20, 22, 23].includes(n));
  });
});

/** i.MX RT1062: which pins have a timer channel, by its multiplexing table. */
describe("board/imxrt1062-compact", () => {
  const timed = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 18, 19, 22, 23];
  const inRows = slots("board/imxrt1062-compact").filter((p) => p.at);
  it.each(inRows.map((p) => [p.label, p] as const))("%s", (_l, p) => {
    expect(Boolean(pwm(p))).toBe(timed.includes(p.gpio!));
    expect(Boolean(adc(p))).toBe(p.gpio! >= 14);
  });
  it("has its second SPI bus on two pins of the header and two pads", () => {
    const line = (role: string) =>
      slots("board/imxrt1062-compact")
        .filter((p) => buses(p, "spi").includes(`spi1.${role}`))
        .map((p) => p.label);
    expect(["cs", "miso", "mosi", "sck"].map(line)).toEqual([["D0"], ["D1"], ["D26"], ["D27"]]);
    for (const label of ["D26", "D27"])
      expect(
        has(
          slots("board/imxrt1062-compact").find((p) => p.label === label)!,
          "pad",
        ),
      ).toBe(true);
  });
  it("has no timer channel twice where two motors would collide", () => {
    const seen = slots("board/imxrt1062-compact").flatMap((p) => pwm(p) ?? []);
    expect(new Set(seen).size).toBe(seen.length);
  });
});

/** Small AVR chips: ports of the legs and what they share, from the pin descriptions of their data sheets. */
const TINY: Record<string, { legs: string[]; adc: Record<string, number>; pwm: Record<string, string> }> = {
  "chip/attiny85-dip8": {
    legs: ["RST", "PB3", "PB4", "GND", "PB0", "PB1", "PB2", "VCC"],
    adc: { PB2: 1, PB4: 2, PB3: 3 },
    pwm: { PB0: "timer0.A", PB1: "timer0.B", PB4: "timer1.B" },
  },
  "chip/attiny13a-dip8": {
    legs: ["RST", "PB3", "PB4", "GND", "PB0", "PB1", "PB2", "VCC"],
    adc: { PB2: 1, PB4: 2, PB3: 3 },
    pwm: { PB0: "timer0.A", PB1: "timer0.B" },
  },
  "chip/attiny84-dip14": {
    legs: ["VCC", "PB0", "PB1", "RST", "PB2", "PA7", "PA6", "PA5", "PA4", "PA3", "PA2", "PA1", "PA0", "GND"],
    adc: { PA0: 0, PA1: 1, PA2: 2, PA3: 3, PA4: 4, PA5: 5, PA6: 6, PA7: 7 },
    pwm: { PB2: "timer0.A", PA7: "timer0.B", PA6: "timer1.A", PA5: "timer1.B" },
  },
};
describe.each(Object.entries(TINY))("%s", (id, table) => {
  it("has its legs in the order of the package", () => {
    const pins = catalogue.get(id)!.pins;
    const half = table.legs.length / 2;
    const at = (side: string) =>
      pins
        .filter((p) => p.at?.header === side)
        .sort((a, b) => a.at!.index - b.at!.index)
        .map((p) => p.label);
    expect(at("L")).toEqual(table.legs.slice(0, half));
    expect(at("R")).toEqual(table.legs.slice(half).reverse());
  });
  it("has its converter channels and timers", () => {
    for (const p of catalogue.get(id)!.pins.filter((x) => x.offers?.length)) {
      const channel = table.adc[p.label];
      expect(adc(p), p.label).toBe(channel === undefined ? undefined : `adc:${channel}`);
      expect(pwm(p), p.label).toBe(table.pwm[p.label]);
    }
  });
});

it("chip/atmega32a-dip40 has its ports round the package as the data sheet draws them", () => {
  const pins = catalogue.get("chip/atmega32a-dip40")!.pins;
  const at = (side: string) =>
    pins
      .filter((p) => p.at?.header === side)
      .sort((a, b) => a.at!.index - b.at!.index)
      .map((p) => p.label);
  expect(at("L")).toEqual([
    "PB0",
    "PB1",
    "PB2",
    "PB3",
    "PB4",
    "PB5",
    "PB6",
    "PB7",
    "RST",
    "VCC",
    "GND",
    "XTAL2",
    "XTAL1",
    "PD0",
    "PD1",
    "PD2",
    "PD3",
    "PD4",
    "PD5",
    "PD6",
  ]);
  expect(at("R")).toEqual([
    "PA0",
    "PA1",
    "PA2",
    "PA3",
    "PA4",
    "PA5",
    "PA6",
    "PA7",
    "AREF",
    "GND.2",
    "AVCC",
    "PC7",
    "PC6",
    "PC5",
    "PC4",
    "PC3",
    "PC2",
    "PC1",
    "PC0",
    "PD7",
  ]);
  const of = (label: string) => pins.find((p) => p.label === label)!;
  for (let i = 0; i < 8; i++) expect(adc(of(`PA${i}`))).toBe(`adc:${i}`);
  expect(buses(of("PC0"), "i2c")).toEqual(["i2c0.scl"]);
  expect(buses(of("PC1"), "i2c")).toEqual(["i2c0.sda"]);
  expect([pwm(of("PB3")), pwm(of("PD7")), pwm(of("PD5")), pwm(of("PD4"))].every(Boolean)).toBe(true);
});

/** Headers of further boards, as printed on them from the end where they are counted; numbers are the chip's. */
const rowOf = (id: string, header: string) =>
  catalogue
    .get(id)!
    .pins.filter((p) => p.at?.header === header)
    .sort((a, b) => a.at!.index - b.at!.index);
const printedRow = (id: string, header: string) =>
  rowOf(id, header).map((p) => (p.gpio === undefined ? p.label.replace(/\.\d+$/, "") : p.gpio));

describe("boards of the second edition", () => {
  it("board/esp32-thirty: fifteen a side, without the pins of the flash", () => {
    expect(printedRow("board/esp32-thirty", "L")).toEqual([
      "RST",
      36,
      39,
      34,
      35,
      32,
      33,
      25,
      26,
      27,
      14,
      12,
      13,
      "GND",
      "5V",
    ]);
    expect(printedRow("board/esp32-thirty", "R")).toEqual([
      23,
      22,
      1,
      3,
      21,
      19,
      18,
      5,
      17,
      16,
      4,
      2,
      15,
      "GND",
      "3V3",
    ]);
    // What the pins can do is the chip's, whatever the board.
    for (const p of catalogue.get("board/esp32-thirty")!.pins) {
      const same = catalogue
        .get("board/esp32-thirtyeight")!
        .pins.find((q) => q.gpio !== undefined && q.gpio === p.gpio);
      if (same) expect(p.offers, p.label).toEqual(same.offers);
    }
  });
  it("board/esp8266-thirty: the numbers behind D0 to D8, the flash's own pins taken", () => {
    expect(printedRow("board/esp8266-thirty", "R")).toEqual([
      16,
      5,
      4,
      0,
      2,
      "3V3",
      "GND",
      14,
      12,
      13,
      15,
      3,
      1,
      "GND",
      "3V3",
    ]);
    expect(printedRow("board/esp8266-thirty", "L")).toEqual([
      17,
      "RSV",
      "RSV",
      10,
      9,
      8,
      11,
      7,
      6,
      "GND",
      "3V3",
      "EN",
      "RST",
      "GND",
      "5V",
    ]);
    for (const g of [6, 7, 8, 9, 10, 11])
      expect(
        has(
          slots("board/esp8266-thirty").find((p) => p.gpio === g)!,
          "reserved",
        ),
        String(g),
      ).toBe(true);
  });
  it.each(["rp2040", "rp2350"])("board/%s-forty-radio has the header of the one without, and a radio", (chip) => {
    const [radio, plain] = [`board/${chip}-forty-radio`, `board/${chip}-forty`];
    for (const h of ["L", "R"]) expect(printedRow(radio, h)).toEqual(printedRow(plain, h));
    expect(catalogue.get(radio)!.board!.radio).toEqual(["wifi", "bluetooth"]);
    expect(Object.values(catalogue.get(radio)!.board!.targets).some((t) => "led" in t)).toBe(false);
    const peak = (id: string) => Number(catalogue.get(id)!.supplies.v33!.mA!.peak);
    expect(peak(radio) - peak(plain)).toBeGreaterThan(250);
  });
  it.each([
    ["board/atmega328p-mini-5v", 16e6, 5],
    ["board/atmega328p-mini-3v3", 8e6, 3.3],
  ] as const)("%s runs at its own clock and voltage, within what the chip takes", (id, Hz, V) => {
    const p = catalogue.get(id)!;
    expect(printedRow(id, "L")).toEqual([1, 0, "RST", "GND", 2, 3, 4, 5, 6, 7, 8, 9]);
    expect(printedRow(id, "R")).toEqual(["RAW", "GND", "RST", "VCC", 17, 16, 15, 14, 13, 12, 11, 10]);
    expect([p.board!.clock_Hz, p.supplies.vcc!.V.typ]).toEqual([Hz, V]);
    // The chip's safe operating area: 10 MHz at 2.7 V, 20 MHz at 4.5 V, on a straight line.
    expect(Hz / 1e6).toBeLessThanOrEqual(10 + ((Number(p.supplies.vcc!.V.min) - 2.7) * 10) / 1.8 + 1e-9);
    for (const q of p.pins) {
      const same = catalogue
        .get("board/atmega328p-compact")!
        .pins.find((x) => x.gpio !== undefined && x.gpio === q.gpio);
      if (same) expect(q.offers, q.label).toEqual(same.offers);
    }
  });
  /** D0 to D10 of the thumb-size shape. */
  const THUMB: Record<string, number[]> = {
    "board/rp2040-thumb": [26, 27, 28, 29, 6, 7, 0, 1, 2, 4, 3],
    "board/esp32-c3-thumb": [2, 3, 4, 5, 6, 7, 21, 20, 8, 9, 10],
    "board/esp32-s3-thumb": [1, 2, 3, 4, 5, 6, 43, 44, 7, 8, 9],
  };
  it.each(Object.entries(THUMB))(
    "%s: the chip's numbers behind D0 to D10, and the usual buses of the shape",
    (id, gpio) => {
      expect(printedRow(id, "L")).toEqual(gpio.slice(0, 7));
      expect(printedRow(id, "R")).toEqual(["5V", "GND", "3V3", gpio[10], gpio[9], gpio[8], gpio[7]]);
      const usualAt = (kind: string, role: string) =>
        slots(id)
          .filter((p) =>
            p.offers!.some((o) => o.kind === kind && "role" in o && o.role === role && "usual" in o && o.usual),
          )
          .map((p) => p.label);
      for (const [kind, role, label] of [
        ["i2c", "sda", "D4"],
        ["i2c", "scl", "D5"],
        ["uart", "tx", "D6"],
        ["uart", "rx", "D7"],
        ["spi", "sck", "D8"],
        ["spi", "miso", "D9"],
        ["spi", "mosi", "D10"],
      ] as const)
        expect(usualAt(kind, role), `${kind} ${role}`).toEqual([label]);
    },
  );
});
