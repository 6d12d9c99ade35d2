import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { evaluate, expressionProblem, formatSI, nextUp, parseQuantity, seriesValues } from ".";

describe("preferred numbers", () => {
  it("has 12 values in a decade of E12 and 24 in E24", () => {
    expect(seriesValues("E12", 100, 999)).toEqual([100, 120, 150, 180, 220, 270, 330, 390, 470, 560, 680, 820]);
    expect(seriesValues("E24", 1000, 9999)).toHaveLength(24);
  });
  it("goes up, never down, and keeps exact values", () => {
    expect(nextUp(270)).toBe(270);
    expect(nextUp(271)).toBe(330);
    expect(nextUp(271, "E24")).toBe(300);
    expect(nextUp(140, "E12", [220, 160])).toBe(160);
    fc.assert(
      fc.property(fc.double({ min: 1, max: 1e6, noNaN: true }), (x) => {
        const v = nextUp(x);
        return v >= x * (1 - 1e-9) && v <= x * 1.26;
      }),
    );
  });
});

describe("typed quantities", () => {
  it.each([
    ["4k7", 4700],
    ["4.7k", 4700],
    ["100n", 1e-7],
    ["0,1u", 1e-7],
    ["20 mA", 0.02],
    ["3.3V", 3.3],
    ["2R2", 2.2],
    ["330", 330],
    ["10 kΩ", 10000],
  ])("reads %s", (text, want) => {
    const q = parseQuantity(text);
    expect(q.ok && q.value).toBeCloseTo(want, 12);
  });
  it.each([
    ["5 kΩ", "V", "is in Ω, and V is wanted here; write it like 3.3 V"],
    ["5 k\u2126", "V", "is in Ω"],
    ["2R2", "F", "is in Ω, and F is wanted here"],
    ["3.3 V", "Ω", "is in V, and Ω is wanted here; write it like 4k7 or 220 Ω"],
    ["10 ms", "Hz", "is in s, and Hz is wanted here"],
    ["5 V", "", "is in V, and a plain number is wanted here"],
    ["-5", "Ω", "is below zero, which no resistance is"],
    ["-4k7", "Ω", "below zero"],
    ["1e300", "Ω", "far from anything on a bench"],
    ["1e-40", "F", "far from anything on a bench"],
    ["9".repeat(300), "V", "longer than any quantity (300 letters)"],
    ["1.5.2", "V", "is not a quantity"],
    ["0x10", "V", "is not a quantity"],
    ["Infinity", "V", "is not a quantity"],
    ["NaN", "V", "is not a quantity"],
    ["", "A", "is not a quantity"],
  ] as const)("refuses %s where %s is wanted", (text, unit, says) => {
    const q = parseQuantity(text, unit);
    expect(q.ok ? "" : q.message).toContain(says);
  });
  it.each([
    ["4k7", "Ω", 4700],
    ["220 \u2126", "Ω", 220],
    ["10 ohms", "Ω", 10],
    ["-12 V", "V", -12],
    ["20m", "A", 0.02],
    ["5.", "V", 5],
    [".5", "V", 0.5],
    ["12", "", 12],
  ] as const)("takes %s where %s is wanted", (text, unit, want) => {
    const q = parseQuantity(text, unit);
    expect(q.ok && q.value).toBeCloseTo(want, 12);
  });
  it("takes time in proportion to the length, however long", () => {
    for (const text of ["1".repeat(2_000_000), ` ${"1.".repeat(500_000)}`, "-".repeat(1_000_000)]) {
      const from = performance.now();
      expect(parseQuantity(text).ok).toBe(false);
      expect(performance.now() - from).toBeLessThan(500);
    }
  });
  it("says what is wrong", () => {
    const q = parseQuantity("four volts");
    expect(q).toEqual({ ok: false, message: '"four volts" is not a quantity; write it like 4k7, 100n or 20 mA' });
  });
  it("reads back what it writes", () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-11, max: 9e8, noNaN: true }), (x) => {
        const q = parseQuantity(formatSI(x, "A", 6));
        return q.ok && Math.abs(q.value - x) <= x * 1e-5;
      }),
    );
  });
});

describe("expressions", () => {
  it("follows the usual precedence", () => {
    expect(evaluate("0.7*V", { V: 5 })).toBeCloseTo(3.5);
    expect(evaluate("V-0.1-2*I*3", { V: 5, I: 0.5 })).toBeCloseTo(1.9);
    expect(evaluate("-(1+2)*min(4,V)", { V: 2 })).toBe(-6);
    expect(evaluate("8/2/2")).toBe(2);
  });
  it("refuses what is no expression", () => {
    expect(expressionProblem("0.7*V")).toBeNull();
    expect(expressionProblem("0.7*")).toContain("ends too early");
    expect(expressionProblem("process.exit()")).not.toBeNull();
    expect(expressionProblem("alert(1,2)")).toContain("unknown function");
    expect(() => evaluate("W", { V: 1 })).toThrow('nothing known about "W"');
  });
});
