import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { catalogue } from "../../testing";
import { compareParts, describePart, printedPins, printsOf, readingOf, summarise } from ".";
import { makeSearch, searchTerm } from "./search";

const summaries = catalogue.parts.map(summarise);
const search = makeSearch(summaries);
const of = (id: string) => summaries.find((s) => s.id === id)!;

describe("search", () => {
  it("finds by function, chip, bus and voltage together", () => {
    const { ids, partial } = search("temperature i2c 3.3");
    expect(partial).toBe(false);
    expect(ids).toEqual(expect.arrayContaining(["module/bme280", "module/aht20", "module/sht31", "module/mlx90614"]));
    // A 5 V-only or one-wire sensor is not among them.
    expect(ids).not.toContain("module/ds18b20");
    for (const id of ids) expect(of(id).talks, id).toContain("i2c");
    for (const id of ids) expect(of(id).volts, id).toContain("3.3v");
  });
  it.each([
    ["distnce", "module/hc-sr04"],
    ["hc sr04", "module/hc-sr04"],
    ["esp32 30 pin", "board/esp32-thirty"],
    ["38 pins esp32", "board/esp32-thirtyeight"],
    ["kitchen scale", "discrete/load-cell"],
    ["i2s microphone", "module/inmp441"],
    ["solar", "supply/solar-panel"],
    ["rs485 5v", "module/max485"],
    ["power bank board", "module/charger-boost"],
    ["595", "module/74hc595"],
    ["2812", "module/ws2812b-strip"],
    ["board/linux-forty", "board/linux-forty"],
    ["wifi board", "board/esp32-thirtyeight"],
    ["lcd i2c", "module/lcd1602-i2c"],
    ["colour light strip", "module/ws2812b-strip"],
    ["one wire temperature", "module/ds18b20"],
  ])("%s", (query, id) => {
    expect(search(query).ids).toContain(id);
  });
  it("puts the exact part first", () => {
    expect(search("bme280").ids[0]).toBe("module/bme280");
    expect(search("rp2040-mini").ids[0]).toBe("board/rp2040-mini");
    expect(search("red led").ids[0]).toBe("discrete/led-red");
  });
  it("says when no part has all the words", () => {
    const r = search("temperature banana");
    expect(r.partial).toBe(true);
    expect(r.ids.length).toBeGreaterThan(0);
  });
  it("reads voltages however they are written", () => {
    for (const t of ["3.3", "3,3V", "3V3", "3.3v", "3.3Volt"]) expect(searchTerm(t), t).toBe("3.3v");
    expect(searchTerm("5V")).toBe("5v");
    expect(searchTerm("595")).toBe("595");
    expect(searchTerm("17")).toBe("17");
  });
  it("narrows by facets, and its counts say what each value would leave", () => {
    const r = search("", { talks: ["spi"], group: ["display"] });
    expect(r.ids.length).toBeGreaterThan(3);
    for (const id of r.ids) expect(of(id)).toMatchObject({ group: "display" });
    for (const [value, n] of r.counts.volts)
      expect(search("", { talks: ["spi"], group: ["display"], volts: [value] }).ids, value).toHaveLength(n);
    // The counts of a facet that is chosen itself show the other choices too.
    expect(r.counts.group.length).toBeGreaterThan(3);
    expect(search("", { only: ["module/bme280"] }).ids).toEqual(["module/bme280"]);
  });
  it("answers anything that is typed, and lists everything for nothing", () => {
    expect(search("").ids).toHaveLength(summaries.length);
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (q) => {
        const { ids } = search(q);
        expect(new Set(ids).size).toBe(ids.length);
        for (const id of ids) expect(catalogue.get(id)).toBeDefined();
      }),
      { numRuns: 200 },
    );
  });
});

describe("summaries", () => {
  it("are small: the whole list is a fraction of the data", () => {
    expect(JSON.stringify(summaries).length * 4).toBeLessThan(JSON.stringify(catalogue.parts).length);
  });
  it("give every part a purpose, and every part that is wired something to talk by", () => {
    for (const s of summaries) {
      expect(s.group, s.id).not.toBe("");
      const part = catalogue.get(s.id)!;
      if (part.pins.some((p) => p.need)) expect(s.talks.length, s.id).toBeGreaterThan(0);
    }
    expect(of("module/bme280")).toMatchObject({
      talks: ["i2c"],
      volts: ["1.8v", "3.3v", "5v"],
      pins: 2,
      group: "sensing",
    });
    expect(of("supply/adapter-12v-2a").volts).toEqual(["12v"]);
    expect(of("board/rp2040-forty")).toMatchObject({ volts: ["3.3v"], pins: 26 });
  });
});

describe("side by side", () => {
  const rows = (...ids: string[]) => compareParts(ids.map((id) => catalogue.get(id)!));
  it("shows what decides, with numbers", () => {
    const r = rows("module/bme280", "module/sht31", "module/dht22");
    const cell = (what: string) => r.find((x) => x.what === what)!;
    expect(cell("talks by").cells).toEqual(["I2C", "I2C", "digital"]);
    expect(cell("accuracy").cells[2]).toContain("±2 %");
    expect(cell("I2C addresses").cells[0]).toBe("0x76, 0x77");
    expect(cell("takes as high and low").cells[0]).toMatch(/^VIH 2\.\d+ V, VIL .* at 3.3 V$/);
    expect(cell("soldering").differs).toBe(true);
    expect(r.some((x) => x.what === "memory")).toBe(false);
  });
  it("stops at four, and compares boards by what boards are chosen by", () => {
    const r = rows(
      "board/rp2040-forty",
      "board/esp32-thirtyeight",
      "board/atmega328p-long",
      "board/linux-forty",
      "board/rp2040-mini",
    );
    expect(r[0]!.cells).toHaveLength(4);
    expect(r.find((x) => x.what === "radio")!.cells).toEqual(["none", "wifi, bluetooth", "none", "wifi, bluetooth"]);
    expect(r.find((x) => x.what === "USB")!.cells[2]).toBe("bridge");
  });
});

describe("parts side by side", () => {
  const row = (ids: string[], what: string) =>
    compareParts(ids.map((id) => catalogue.get(id)!)).find((r) => r.what === what);
  it("isolators by what they keep apart and how fast they are, cells by their curve", () => {
    const two = ["module/isolator-2ch", "module/optocoupler-pc817"];
    expect(row(two, "isolation")!.cells).toEqual(["tested with 2.5 kV for a minute", "tested with 5 kV for a minute"]);
    expect(row(two, "speed across it")!.cells).toEqual(["1 Mbit/s", "10 kbit/s"]);
    const cells = row(["supply/aa-2", "supply/coin-cell", "supply/li-ion-2s"], "cells")!.cells;
    expect(cells[0]).toMatch(/^2 × alkaline: 3\.2 V full, 2\.47 V half used, .*2000 mAh$/);
    expect(cells[1]).toMatch(/^1 × coin: 3\.1 V full, 2\.9 V half used/);
    expect(cells[2]).toMatch(/^2 × lithium: 8\.4 V full/);
    expect(row(["supply/aa-2", "module/pir"], "isolation")).toBeUndefined();
  });
  it("headers that are known, and the air that each is made for", () => {
    expect(row(["module/dht11", "module/dht22"], "works in air of")!.cells).toEqual(["0 to 50 °C", "–"]);
    expect(row(["module/pir", "module/hc-sr04"], "headers known")!.cells).toEqual([
      "VCC OUT GND; GND OUT VCC",
      "VCC TRIG ECHO GND",
    ]);
  });
});

describe("what a part page shows", () => {
  it.each(catalogue.parts.map((p) => [p.id, p] as const))("%s", (_id, p) => {
    const d = describePart(p);
    expect(d.pins.map((x) => x.label)).toEqual(p.pins.map((x) => x.label));
    for (const pin of d.pins) expect(pin.what, pin.label).not.toBe("");
    // The drawing shows each hole of the header once, as it is printed, and each pin elsewhere on the board once.
    const drawn = d.headers.flatMap((h) => h.pins);
    const known = printedPins(p);
    const holes = readingOf(p).rows.flat();
    const elsewhere = p.pins.filter((x) => !known.has(x.label)).map((x) => x.label);
    const labels = drawn.map((x) => x.label);
    if (printsOf(p).length) expect(labels).toEqual([...holes.map((h) => h.printed), ...elsewhere]);
    else expect(new Set(labels).size).toBe(labels.length);
    if (!p.board && !printsOf(p).length) expect(drawn).toHaveLength(p.pins.length);
    for (const h of d.headers) expect(new Set(h.pins.map((x) => x.index)).size).toBe(h.pins.length);
    expect(JSON.stringify(d)).not.toMatch(/NaN|undefined|Infinity/);
  });
  it("tells thresholds as rule and number", () => {
    const d = describePart(catalogue.get("module/hc-sr04")!);
    expect(d.thresholds[0]!.rows[0]).toEqual({
      what: "sees a high from (VIH)",
      rule: "2.0",
      at: "2 V at 5 V",
      sure: "a rule of thumb",
    });
  });
});
