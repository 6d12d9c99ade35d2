import { describe, expect, it } from "vitest";
import { catalogue } from "../../testing";
import { withOptions, type Chemistry } from "../../parts/catalogue";
import { batteryVolts } from "./battery";
import { inCold } from "./cold";

/** Volts of one cell when full, half used and empty, as data sheets of the kind print them; and what it is sold as. */
const CELLS: Record<Chemistry, { full: number; half: number; empty: number; called: number }> = {
  alkaline: { full: 1.6, half: 1.235, empty: 0.8, called: 1.5 },
  nimh: { full: 1.4, half: 1.24, empty: 0.9, called: 1.2 },
  lithium: { full: 4.2, half: 3.73, empty: 3.0, called: 3.7 },
  lifepo4: { full: 3.6, half: 3.25, empty: 2.5, called: 3.2 },
  lead: { full: 2.13, half: 2.015, empty: 1.75, called: 2 },
  coin: { full: 3.1, half: 2.9, empty: 2.0, called: 3 },
};
const cell = (chemistry: Chemistry, cells = 1, rint_ohm = 0) => ({
  ref: "S1",
  label: "Cell",
  chemistry,
  cells,
  capacity_Ah: 1,
  rint_ohm,
});

describe.each(Object.entries(CELLS) as [Chemistry, (typeof CELLS)[Chemistry]][])("a cell of %s", (kind, volts) => {
  it("has the volts of its kind, full, half used and empty", () => {
    expect(batteryVolts(cell(kind), 0, 0)).toBeCloseTo(volts.full, 2);
    expect(batteryVolts(cell(kind), 0.5, 0)).toBeCloseTo(volts.half, 2);
    expect(batteryVolts(cell(kind), 1, 0)).toBeCloseTo(volts.empty, 2);
    expect(Math.abs(batteryVolts(cell(kind), 0.5, 0) - volts.called)).toBeLessThan(0.3);
  });
  it("only falls while it is used, by its cells, and by what flows through its inside", () => {
    for (let used = 0; used < 1; used += 0.02) {
      const [now, then] = [used, used + 0.02].map((u) => batteryVolts(cell(kind), u, 0));
      expect(then).toBeLessThanOrEqual(now!);
      expect(batteryVolts(cell(kind, 3), used, 0)).toBeCloseTo(3 * now!, 9);
      expect(batteryVolts(cell(kind, 1, 0.5), used, 0.2)).toBeCloseTo(now! - 0.1, 9);
    }
  });
  it("gives less in the cold, through a larger resistance", () => {
    const at = [-20, -10, 0, 5, 10, 25].map((C) => inCold(kind, C));
    for (let i = 1; i < at.length; i++) {
      expect(at[i]!.share).toBeGreaterThanOrEqual(at[i - 1]!.share);
      expect(at[i]!.times).toBeLessThanOrEqual(at[i - 1]!.times);
    }
    expect(at.at(-1)).toEqual({ share: 1, times: 1 });
  });
});

it("rechargeable cells in the same holder have volts, chemistry and resistance of their own", () => {
  for (const n of [2, 3, 4]) {
    const p = withOptions(catalogue.get(`supply/aa-${n}`)!, { cells: "nimh" });
    const { source } = p.supplies.main!;
    expect(source).toMatchObject({ chemistry: "nimh", cells: n });
    expect([source!.V.typ, source!.V.max]).toEqual([Number((1.2 * n).toFixed(2)), Number((1.45 * n).toFixed(2))]);
    expect(Number(source!.rint_ohm)).toBeLessThan(
      Number(catalogue.get(`supply/aa-${n}`)!.supplies.main!.source!.rint_ohm),
    );
  }
});
