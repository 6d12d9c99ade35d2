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
