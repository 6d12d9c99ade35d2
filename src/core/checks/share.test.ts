import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import { catalogue, make } from "../testing";
import { explain, findings, shareOf, shareWords } from ".";
import { AVR, CABLE, led, part, USB } from "./cases/build";

const found = (project: ReturnType<typeof make>, rule: string) => {
  const c = circuitOf(project, catalogue);
  const f = findings(c).find((x) => x.rule === rule);
  return { c, f: f!, share: f ? shareOf(c, f) : undefined };
};

/** A red light with so many ohms at D8. */
const lamp = (ohm: number) => make([AVR, USB, led("LED1", ohm)], [CABLE, ["B1.D8", "LED1.A"], ["LED1.K", "B1.GND"]]);

describe("the share of builds in which a finding comes true", () => {
  it("is one where even the best corner fails, and in between near the limit", () => {
    expect(found(lamp(33), "current.pin").share).toBe(1);
    const near = [82, 100, 120, 130, 150, 180, 220].map((ohm) => found(lamp(ohm), "current.pin").share ?? 0);
    expect(near.some((x) => x > 0 && x < 1)).toBe(true);
    // A larger resistor never fails more often.
    for (let i = 1; i < near.length; i++) expect(near[i]!).toBeLessThanOrEqual(near[i - 1]!);
  });
  it("of a rail is the part of its range that lies outside", () => {
    // A bench supply of 4.6 V: 4.504 to 4.696 V; a part that wants 4.6 V fails in half of them.
    const p = make(
      [AVR, USB, part("S2", "supply/bench", { output_V: 4.53 }), part("M1", "module/hc-sr04")],
      [CABLE, ["M1.VCC", "S2.+"], ["M1.GND", "S2.-"], ["S2.-", "B1.GND"], ["M1.TRIG", "B1.D8"], ["M1.ECHO", "B1.D9"]],
    );
    const { share, f } = found(p, "power.range");
    // 4.53·0.99 − 0.05 = 4.4347 to 4.53·1.01 + 0.05 = 4.6253 V, of which 4.4347 to 4.5 is too low: 34 %.
    expect(f.severity).toBe("risk");
    expect(share).toBeCloseTo(0.0653 / 0.1906, 1);
  });
  it("is the same every time, and is said in benches", () => {
    expect(found(lamp(120), "current.pin").share).toBe(found(lamp(120), "current.pin").share);
    expect(shareWords(0.067)).toBe("about 2 of 30 benches");
    expect(shareWords(1)).toBe("every bench");
    expect(shareWords(0.004)).toMatch(/fewer than one/);
    expect(shareWords(0)).toMatch(/last corner/);
  });
  it("stands in the explanation, beside the way of the supply", () => {
    const { c, f } = found(lamp(33), "current.pin");
    expect(explain(c, f).join("\n")).toContain("of many builds: every bench");
  });
});
