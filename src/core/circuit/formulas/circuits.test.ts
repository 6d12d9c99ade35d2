import { describe, expect, it } from "vitest";
import { chooseDivider, ledResistor } from ".";

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
