import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { summarise } from "../catalogue";
import { makeSearch } from "../catalogue/search";
import { catalogue } from "../../testing";
import { makeMatcher, MAX_LIST_CHARS, readList, takeQuantity } from ".";
import { PHRASES } from "./phrases";

const summaries = catalogue.parts.map(summarise);
const match = makeMatcher(summaries, makeSearch(summaries));
const lines = (text: string) => {
  const r = readList(text);
  if (!r.ok) throw new Error(r.message);
  return r.lines;
};
const one = (text: string) => match(lines(text))[0]!;

describe("quantities", () => {
  it.each([
    ["3 LEDs", 3, "LEDs"],
    ["2x BME280", 2, "BME280"],
    ["4 × servo", 4, "servo"],
    ["BME280 (2)", 2, "BME280"],
    ["resistor 10k x5", 5, "resistor 10k"],
    ["10 pcs 1N4007", 10, "1N4007"],
    ["button - 3 pcs", 3, "button"],
    ["- 2 buttons", 2, "buttons"],
    // Numbers that belong to the part
    ["5 V adapter", 1, "5 V adapter"],
    ["8x8 LED matrix", 1, "8x8 LED matrix"],
    ["74HC595", 1, "74HC595"],
    ["10k resistor", 1, "10k resistor"],
    ["12 mm button", 1, "12 mm button"],
    ["0 LEDs", 1, "0 LEDs"],
  ])("%s", (text, quantity, rest) => {
    expect(takeQuantity(text)).toEqual({ quantity, rest });
  });
});

describe("reading lists as people have them", () => {
  it("CSV with headings in any order and language, semicolons, quotes, a byte-order mark and blank lines", () => {
    const text = '\uFEFFPosition;Menge;Bezeichnung;Wert\r\nR1,R2;2;"Widerstand; Kohle";4k7\r\n;;;\r\nU1;1;BMP280;\r\n';
    expect(lines(text)).toEqual([
      {
        line: 2,
        raw: "R1,R2 · 2 · Widerstand; Kohle · 4k7",
        text: "Widerstand; Kohle 4k7",
        quantity: 2,
        refs: ["R1", "R2"],
      },
      { line: 3, raw: "U1 · 1 · BMP280", text: "BMP280", quantity: 1, refs: ["U1"] },
    ]);
  });
  it("tables without headings: the column of numbers is the count, the longest words are the part", () => {
    const l = lines("R1 R2,2,Resistor 330R\nU1,1,Echo sensor HC-SR04\nD1,4,Red LED");
    expect(l.map((x) => [x.quantity, x.text])).toEqual([
      [2, "Resistor 330R"],
      [1, "Echo sensor HC-SR04"],
      [4, "Red LED"],
    ]);
    expect(l[0]!.refs).toEqual(["R1", "R2"]);
  });
  it("a table pasted with bars, and plain lines", () => {
    expect(lines("| Item | Qty |\n|---|---|\n| 74HC595 | 2 |").map((x) => [x.text, x.quantity])).toEqual([
      ["74HC595", 2],
    ]);
    expect(lines("3 red LEDs\n\nBME280\n").map((x) => [x.text, x.quantity])).toEqual([
      ["red LEDs", 3],
      ["BME280", 1],
    ]);
  });
  it("refuses what is too long, and says so", () => {
    expect(readList("x".repeat(MAX_LIST_CHARS + 1))).toMatchObject({
      ok: false,
      message: expect.stringContaining("split it"),
    });
    expect(readList("LED\n".repeat(600))).toMatchObject({ ok: false, message: expect.stringContaining("600 lines") });
    expect(readList("  \n ")).toMatchObject({ ok: false });
  });
  it("never throws, whatever is pasted", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400 }), (t) => {
        const r = readList(t);
        if (r.ok) for (const m of match(r.lines)) expect(m.quantity).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 300 },
    );
    fc.assert(
      fc.property(fc.array(fc.array(fc.string({ maxLength: 12 }), { maxLength: 5 }), { maxLength: 8 }), (rows) => {
        const r = readList(rows.map((x) => x.join(";")).join("\n"));
        if (r.ok) expect(match(r.lines)).toHaveLength(r.lines.length);
      }),
      { numRuns: 200 },
    );
  });
});

describe("matching to the catalogue", () => {
  it.each([
    ["2x BME280 sensor", "module/bme280"],
    ["HC SR04 ultrasonic", "module/hc-sr04"],
    ["NRF24L01+", "module/nrf24l01"],
    ['SSD1306 OLED 0.96" I2C', "module/ssd1306-i2c"],
    ["3 red LEDs", "discrete/led-red"],
    ["1N4007 diode", "discrete/diode-1n4007"],
    ["PIR motion sensor", "module/pir"],
    ["board/rp2040-forty", "board/rp2040-forty"],
  ])("%s is clear", (text, id) => {
    expect(one(text)).toMatchObject({ status: "sure", to: "project" });
    expect(one(text).candidates[0]!.id).toBe(id);
  });
  it("values become values, and go to the drawer", () => {
    expect(one("10 resistors 220 ohm")).toMatchObject({
      status: "sure",
      to: "drawer",
      quantity: 10,
      candidates: [{ id: "discrete/resistor", options: { resistance_ohm: 220 } }],
    });
    expect(one("4k7").candidates[0]!.options).toEqual({ resistance_ohm: 4700 });
    expect(one("Resistor 330R").candidates[0]!.options).toEqual({ resistance_ohm: 330 });
    expect(one("100nF capacitor x10").candidates[0]).toMatchObject({
      id: "discrete/capacitor",
      options: { capacitance_uF: 0.1 },
    });
    expect(one("470 uF electrolytic").candidates[0]).toMatchObject({
      id: "discrete/electrolytic",
      options: { capacitance_uF: 470 },
    });
    expect(one("WS2812B strip 60 LEDs").candidates[0]).toMatchObject({ options: { pixels: 60 } });
    expect(one("10k potentiometer")).toMatchObject({
      to: "project",
      candidates: [{ id: "discrete/potentiometer", options: { resistance_ohm: 10_000 } }],
    });
  });
  it("asks where there is more than one answer, the likelier first", () => {
    const esp = one("ESP32 dev board");
    expect(esp.status).toBe("unclear");
    expect(esp.candidates.length).toBeGreaterThan(1);
    expect(
      one("soil moisture sensor")
        .candidates.map((c) => c.id)
        .slice(0, 2)
        .sort(),
    ).toEqual(["module/soil-capacitive", "module/soil-resistive"]);
    // A capacitor without a value is no capacitor that can be planned.
    expect(one("flux capacitor").status).not.toBe("sure");
  });
  it("leaves tools and wire out, and says when it knows nothing", () => {
    expect(one("jumper wires 40 pcs")).toMatchObject({ status: "not-planned", to: "skip" });
    expect(one("breadboard 830")).toMatchObject({ status: "not-planned", to: "skip" });
    expect(one("unobtainium")).toMatchObject({ status: "unknown", to: "skip", candidates: [] });
  });
  it("proposes only options that the part takes", () => {
    const all = match(lines("WS2812B strip 5000 LEDs\n10k potentiometer\n3 red LED\n470uF capacitor"));
    for (const l of all)
      for (const c of l.candidates) {
        const part = catalogue.get(c.id)!;
        for (const [key, value] of Object.entries(c.options)) {
          const o = part.options.find((x) => x.key === key);
          expect(o?.kind, c.id).toBe("number");
          if (o?.kind === "number") expect(Number(value)).toBeLessThanOrEqual(o.max);
        }
      }
  });
});

describe("everyday phrasings", () => {
  it("are at least a hundred and fifty", () => {
    expect(PHRASES.length).toBeGreaterThanOrEqual(150);
  });
  it.each(PHRASES.map((p) => [p[0], p] as const))("%s", (_name, [text, meant, count = 1, value]) => {
    const m = one(text);
    const ids = m.candidates.map((c) => c.id);
    if (meant === "-") return expect(m.status).toBe("not-planned");
    if (meant.startsWith("?")) {
      const may = meant.slice(1).split(" ");
      // Asked about, or sure of one of those that it may be: never sure of something else.
      expect(m.status === "sure" ? may : ids).toEqual(
        expect.arrayContaining([m.status === "sure" ? ids[0]! : may[0]!]),
      );
      return expect(m.status).not.toBe("unknown");
    }
    expect([m.status, ids[0], m.quantity]).toEqual(["sure", meant, count]);
    if (value !== undefined) {
      const got = Object.values(m.candidates[0]!.options).map(Number);
      expect(Math.min(...got.map((x) => Math.abs(x / value - 1)))).toBeLessThan(1e-6);
    }
  });
});
