import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { chooseDivider, ledResistor, solveNodes } from ".";

describe("resistor networks", () => {
  it("divides by the ratio of the resistors", () => {
    const v = solveNodes(
      [
        { a: "in", b: "tap", ohm: 1000 },
        { a: "tap", b: "gnd", ohm: 2000 },
      ],
      new Map([
        ["in", 5],
        ["gnd", 0],
      ]),
    );
    expect(v.get("tap")).toBeCloseTo(10 / 3, 9);
  });
  it("solves a loaded two-stage ladder (worked by hand: 6 V over 1k, 2k ‖ (1k + 1k))", () => {
    const v = solveNodes(
      [
        { a: "in", b: "x", ohm: 1000 },
        { a: "x", b: "gnd", ohm: 2000 },
        { a: "x", b: "y", ohm: 1000 },
        { a: "y", b: "gnd", ohm: 1000 },
      ],
      new Map([
        ["in", 6],
        ["gnd", 0],
      ]),
    );
    // 2k parallel 2k = 1k: x is half of 6 V, y half of x.
    expect(v.get("x")).toBeCloseTo(3, 9);
    expect(v.get("y")).toBeCloseTo(1.5, 9);
  });
  it("says that an island floats", () => {
    const v = solveNodes([{ a: "p", b: "q", ohm: 10 }], new Map([["gnd", 0]]));
    expect(v.get("p")).toBeNaN();
  });
  it("keeps every node between the held voltages", () => {
    const ohm = fc.integer({ min: 10, max: 100_000 });
    fc.assert(
      fc.property(ohm, ohm, ohm, ohm, (a, b, c, d) => {
        const v = solveNodes(
          [
            { a: "hi", b: "1", ohm: a },
            { a: "1", b: "2", ohm: b },
            { a: "2", b: "lo", ohm: c },
            { a: "1", b: "lo", ohm: d },
          ],
          new Map([
            ["hi", 5],
            ["lo", 0],
          ]),
        );
        return v.get("1")! <= 5 && v.get("1")! >= v.get("2")! && v.get("2")! >= 0;
      }),
    );
  });
});

describe("LED resistor", () => {
  it("5 V, 2 V light, 10 mA: 300 Ω, next up 330 Ω", () => {
    const r = ledResistor({ V: 5, Vf: 2, I: 0.01 })!;
    expect(r.exact).toBeCloseTo(300, 9);
    expect(r.ohm).toBe(330);
    expect(r.current).toBeCloseTo(3 / 330, 9);
    expect(r.W).toBeCloseTo(9 / 330, 9);
  });
  it("counts the pin's own resistance and lights in series", () => {
    expect(ledResistor({ V: 12, Vf: 2, n: 3, I: 0.02, pin_ohm: 25 })!.exact).toBeCloseTo(275, 9);
  });
  it("refuses when the supply leaves nothing", () => {
    expect(ledResistor({ V: 3.3, Vf: 2, n: 2, I: 0.01 })).toBeNull();
  });
});

describe("divider", () => {
  it("brings 5 V under 3.5 V and keeps it over 2.0 V, with 5 % resistors at their worst", () => {
    const d = chooseDivider({ from: { min: 4.25, typ: 5, max: 5.25 }, VIH: 2, ceiling: 3.5 })!;
    const worst = (d.bottom_ohm * 1.05) / (d.bottom_ohm * 1.05 + d.top_ohm * 0.95);
    const least = (d.bottom_ohm * 0.95) / (d.bottom_ohm * 0.95 + d.top_ohm * 1.05);
    expect(5.25 * worst).toBeLessThanOrEqual(3.5);
    expect(4.25 * least).toBeGreaterThanOrEqual(2);
    expect(d.out.max).toBeCloseTo(5.25 * worst, 9);
  });
  it("says when no pair can do it", () => {
    expect(chooseDivider({ from: { min: 1.9, typ: 5, max: 5.25 }, VIH: 2, ceiling: 3.5 })).toBeNull();
  });
});
