import { describe, expect, it } from "vitest";
import { outputLine } from "../../circuit/netlist/output";
import { evaluate } from "../../quantity";
import { catalogue } from "../../testing";
import { outdone, outputOf } from "./outputs";
import { optionVars } from "./options";
import type { Level } from "./schema";
import { validatePart } from "./validate";

const level = (points: Level["points"], more: Partial<Level> = {}): Level => ({
  supply: "main",
  absMax: "V+0.3",
  absMin: -0.3,
  input: "cmos",
  output: "push-pull",
  points,
  ...more,
});
const at = (l: Level, side: "VOH" | "VOL", V: number, mA: number) => evaluate(outputOf(l, side)!, { V, I: mA / 1000 });

describe("points of an output", () => {
  // Worked by hand: 0.8 V at 20 mA are 40 Ω at 5 V, 0.7 V at 10 mA are 70 Ω at 3 V; between them 55 Ω at 4 V.
  const two = level([
    { V: 5, mA: 20, VOH: 4.2, VOL: 0.9 },
    { V: 3, mA: 10, VOH: 2.3, VOL: 0.6 },
  ]);
  it("are met, and between two supplies the line between them is taken", () => {
    expect(at(two, "VOH", 5, 20)).toBeCloseTo(4.2);
    expect(at(two, "VOH", 3, 10)).toBeCloseTo(2.3);
    expect(at(two, "VOH", 4, 10)).toBeCloseTo(4 - 0.55);
    expect(at(two, "VOL", 5, 20)).toBeCloseTo(0.9);
    expect(at(two, "VOL", 4, 10)).toBeCloseTo(0.525);
    expect(at(two, "VOH", 5, 0)).toBe(5);
  });
  it("below the lowest supply it gets worse, above the highest never better", () => {
    expect(at(two, "VOH", 2, 10)).toBeCloseTo(2 - 0.85);
    expect(at(two, "VOH", 5.5, 20)).toBeCloseTo(5.5 - 0.8);
  });
  it("of several at one supply the worst counts, and where they bend the other way the larger line", () => {
    const bent = level([
      { V: 3, mA: 8, VOL: 0.4 },
      { V: 3, mA: 20, VOL: 1.3 },
      { V: 5, mA: 10, VOL: 0.8 },
    ]);
    expect(at(bent, "VOL", 3, 20)).toBeGreaterThanOrEqual(1.3);
    for (let V = 2; V <= 6; V += 0.5) expect(at(bent, "VOL", V, 8)).toBeGreaterThanOrEqual(0.4);
    expect(outputOf(bent, "VOH")).toBeUndefined();
  });
  it("are the line that the circuit is solved with", () => {
    expect(outputLine(two, 5, {}, "VOH")).toEqual({ V0: 5, ohm: expect.closeTo(40) });
    expect(outputLine(two, 3, {}, "VOL")).toEqual({ V0: 0, ohm: expect.closeTo(60) });
  });
  it("no expression beside them promises more, in any shipped part; one that does is refused", () => {
    let seen = 0;
    for (const p of catalogue.parts)
      for (const l of Object.values(p.levels)) {
        if (l.points) seen++;
        expect(outdone(l, optionVars(p, {})), p.id).toEqual([]);
      }
    expect(seen).toBeGreaterThan(10);
    const max485 = catalogue.get("module/max485")!;
    const bad = { ...max485, levels: { main: { ...max485.levels.main, VOH: "V-0.2" } } };
    const r = validatePart(JSON.parse(JSON.stringify(bad)));
    expect(!r.ok && r.problems[0]!.message).toContain("promises 4.55 V at 4.75 V and 4 mA, where the point says 3.5 V");
  });
});
