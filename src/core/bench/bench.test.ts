import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import { BOARD5, catalogue, planned, USB } from "../testing";
import { checklist, judgeReading, parseReading } from ".";

describe("readings as typed", () => {
  it.each([
    ["3.28", "V", 3.28],
    ["3,28 V", "V", 3.28],
    ["3280 mV", "V", 3.28],
    ["OL", "Ω", Infinity],
    ["o.l", "Ω", Infinity],
    ["4.7k", "Ω", 4700],
    ["2.2 MΩ", "Ω", 2.2e6],
    ["80", "mA", 80],
    ["0.08 A", "mA", 80],
    ["80 mA", "mA", 80],
  ] as const)("%s in %s", (text, unit, want) => {
    const r = parseReading(text, unit);
    expect(r.ok && (r.value === want || Math.abs(r.value - want) < 1e-9)).toBe(true);
  });
  it("refuses what is no reading, in words", () => {
    for (const t of ["", "warm", "OL volts", "3..3"]) expect(parseReading(t, "V").ok, t).toBe(false);
  });
});

describe("checklist", () => {
  const list = checklist(
    circuitOf(
      planned([BOARD5, USB, { ref: "M2", part: "module/ssd1306-i2c" }, { ref: "SW1", part: "discrete/button" }]),
      catalogue,
    ),
  );
  const item = (id: string) => list.find((i) => i.id.startsWith(id))!;
  it("beeps every wire, and never a supply to ground", () => {
    expect(item("beep B1.A4 M2.SDA")).toMatchObject({ when: "before power", high: 5, unit: "Ω" });
    expect(judgeReading(item("short 5V"), 2)).toBe(false);
    expect(judgeReading(item("short 5V"), Infinity)).toBe(true);
  });
  it("expects rails inside the source's tolerance and bus lines high", () => {
    expect(item("volts 5V")).toMatchObject({ when: "after power", low: 4.75, high: 5.25 });
    expect(judgeReading(item("volts 5V"), 4.3)).toBe(false);
    expect(judgeReading(item("idle SDA"), 5)).toBe(true);
    expect(judgeReading(item("idle SDA"), 0.1)).toBe(false);
  });
  it("has no two items with one id", () => {
    expect(new Set(list.map((i) => i.id)).size).toBe(list.length);
  });
});
