import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { circuitOf } from "../circuit";
import { applyEdit } from "../project";
import { BOARD3, BOARD5, catalogue, planned, rules, USB } from "../testing";
import {
  fieldProblem,
  hookupsOf,
  readValues,
  startValues,
  sumById,
  SUMS,
  takeAnswers,
  writeValues,
  type Owned,
  type SumDone,
} from ".";

const NOTHING: Owned = { resistors_ohm: [], capacitors_F: [] };
function run(id: string, values: object = {}, owned = NOTHING): SumDone & { of: Record<string, number> } {
  const s = sumById(id)!;
  const r = s.compute({ ...startValues(s), ...values }, owned);
  if (!r.ok) throw new Error(r.message);
  return { ...r, of: Object.fromEntries(r.answers.map((a) => [a.key, a.value])) };
}

describe("the sums, each worked by hand", () => {
  it("three red lights in a row on 12 V at 15 mA: (12 − 6) / 0.015 = 400 Ω, next up 470 Ω", () => {
    const r = run("light", { V: 12, Vf: 2, n: 3, I: 0.015 });
    expect(r.of.ohm).toBe(470);
    expect(r.of.current).toBeCloseTo(6 / 470, 6);
    // 12.8 mA squared through 470 Ω is 77 mW: 0.25 W, since 0.125 W is less than twice that.
    expect(r.of.rating).toBe(0.25);
  });
  it("lights that leave nothing are refused in a sentence", () => {
    const r = sumById("light")!.compute({ ...startValues(sumById("light")!), V: 5, Vf: 2, n: 3 }, NOTHING);
    expect(r).toMatchObject({ ok: false });
    expect(!r.ok && r.message).toContain("6.00 V");
  });
  it("what the person owns goes first when it is near", () => {
    expect(run("light", { V: 5, Vf: 2, I: 0.01 }, { ...NOTHING, resistors_ohm: [360, 1000] }).of.ohm).toBe(360);
  });
  it("transistor for 40 mA from 5 V: IB 2.67 mA, (4.65 − 1) / 2.67 mA = 1369 Ω, next down 1.2 kΩ", () => {
    const r = run("transistor", { V: 5, load_A: 0.04 });
    expect(r.of.ohm).toBe(1200);
    // (5.25 − 0.6) / (1200 · 0.95) at most.
    expect(r.of.pin_A).toBeCloseTo(4.65 / 1140, 5);
    expect(r.of.beta).toBeLessThan(20);
  });
  it("MOSFET: 1 A through 48 mΩ, half as much again when hot, loses 72 mW", () => {
    const r = run("mosfet", { V: 3.3, load_A: 1, Vgs: 2.5, on_ohm: 0.048, pin_A: 0.008 });
    expect(r.of.W).toBeCloseTo(0.072, 4);
    // 3.465 V / 8 mA = 433 Ω, next up 470 Ω.
    expect(r.of.gate_ohm).toBe(470);
    const low = sumById("mosfet")!.compute({ ...startValues(sumById("mosfet")!), V: 3.3, Vgs: 4.5 }, NOTHING);
    expect(low.ok).toBe(false);
  });
  it("a 12 V coil of 400 Ω draws 30 mA; on 24 V another 400 Ω takes the rest", () => {
    expect(run("coil").of.load_A).toBeCloseTo(0.03, 6);
    expect(run("coil", { supply_V: 24 }).of.series_ohm).toBeCloseTo(400, 6);
  });
  it("sensor from 1 kΩ to 100 kΩ: √(10⁸) = 10 kΩ, from 0.30 V to 3.00 V at 3.3 V", () => {
    const r = run("sensor");
    expect(r.of.ohm).toBe(10_000);
    expect(r.of.at_max_V).toBeCloseTo(0.3, 6);
    expect(r.of.at_min_V).toBeCloseTo(3, 6);
  });
  it("no other fixed resistor swings further than the geometric mean", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 10_000 }),
        fc.integer({ min: 2, max: 500 }),
        fc.double({ min: 0.1, max: 10, noNaN: true }),
        (lo, factor, other) => {
          const hi = lo * factor;
          const swing = (R: number) => hi / (hi + R) - lo / (lo + R);
          const best = Math.sqrt(lo * hi);
          return swing(best * other) <= swing(best) + 1e-12;
        },
      ),
    );
  });
  it("bounce: 10 kΩ and 470 Ω, 5 ms, VIH 3 V of 5 V", () => {
    const r = run("debounce");
    // From 5·470/10470 = 0.2245 V towards 5 V, 3 V are reached after 0.870 τ: C ≥ 5 ms / (0.870 · 10470 Ω) = 549 nF → 560 nF.
    expect(r.of.F).toBeCloseTo(560e-9, 12);
    expect(r.of.release_s).toBeGreaterThanOrEqual(0.005);
  });
  it("optocoupler: light at the lowest supply and oldest age still pulls the line low", () => {
    const r = run("optocoupler");
    // (4.75 − 1.4) / 5 mA = 670 Ω → 560 Ω... the next value down of E12 is 560; least current 3.35 / (560·1.05).
    expect(r.of.led_ohm).toBe(560);
    expect(r.of.led_A).toBeCloseTo(3.35 / 588, 6);
    expect(r.of.out_A).toBeCloseTo((3.35 / 588) * 0.5 * 0.7, 7);
    expect(r.of.pull_ohm! * r.of.out_A!).toBeGreaterThan(3);
  });
  it("capacitor: 1 A for 100 µs at 0.2 V of dip wants 500 µF, so 1000 µF", () => {
    expect(run("decoupling").of.F).toBeCloseTo(1e-3, 9);
    expect(run("decoupling", {}, { ...NOTHING, capacitors_F: [680e-6] }).of.F).toBeCloseTo(680e-6, 9);
  });
  it("pull-up window of UM10204: 3.465 V gives 1022 Ω, 100 pF at 400 kHz gives 3.54 kΩ", () => {
    const r = run("i2c-pull-up", { clock: 400_000 });
    expect(r.of.min).toBeCloseTo((3.465 - 0.4) / 0.003, 6);
    expect(r.of.max).toBeCloseTo(300e-9 / (0.8473 * 1e-10), -1);
    expect(r.of.ohm).toBeGreaterThan(r.of.min!);
    expect(r.of.ohm).toBeLessThan(r.of.max!);
  });
});

describe("every sum", () => {
  it.each(SUMS.map((s) => [s.id, s] as const))("%s answers its own usual values, draws and teaches", (_id, s) => {
    const r = s.compute(startValues(s), NOTHING);
    expect(r.ok).toBe(true);
    if (!r.ok) return;
    expect(r.answers.some((a) => a.main)).toBe(true);
    for (const a of r.answers) expect(Number.isFinite(a.value), a.key).toBe(true);
    expect(r.steps.join(" ")).not.toMatch(/NaN|undefined/);
    expect(r.drawing.items.length).toBeGreaterThan(3);
    const inside = (p: readonly [number, number]) =>
      p[0] >= 0 && p[1] >= 0 && p[0] <= r.drawing.width && p[1] <= r.drawing.height;
    for (const i of r.drawing.items) {
      const points = i.kind === "wire" ? i.points : "from" in i ? [i.from, i.to] : [i.at];
      for (const p of points) expect(inside(p), `${i.kind} at ${p.join()}`).toBe(true);
    }
    for (const f of s.fields) expect(fieldProblem(f, f.value), f.key).toBeNull();
    expect(s.does.length).toBeGreaterThan(40);
    expect(s.without.length).toBeGreaterThan(40);
  });
  it.each(SUMS.map((s) => [s.id, s] as const))(
    "%s: whatever is asked within its limits, an answer or a sentence comes back",
    (_id, s) => {
      const value = (f: (typeof s.fields)[number]) =>
        f.choices
          ? fc.constantFrom(...f.choices.map((c) => c.value))
          : f.whole
            ? fc.integer({ min: f.min, max: f.max })
            : fc.double({ min: f.min, max: f.max, noNaN: true });
      fc.assert(
        fc.property(fc.record(Object.fromEntries(s.fields.map((f) => [f.key, value(f)]))), (v) => {
          const r = s.compute(v as Record<string, number>, NOTHING);
          return r.ok ? r.answers.every((a) => !Number.isNaN(a.value)) : r.message.length > 15;
        }),
        { numRuns: 150 },
      );
    },
  );
  it.each(SUMS.map((s) => [s.id, s] as const))("%s: its address brings the values back", (_id, s) => {
    const other = Object.fromEntries(
      s.fields.map((f) => [
        f.key,
        f.choices ? f.choices.at(-1)!.value : f.whole ? Math.min(f.max, f.value + 1) : Math.min(f.max, f.value * 1.5),
      ]),
    );
    const query = new URLSearchParams(writeValues(s, other));
    const back = readValues(s, (k) => query.get(k));
    expect(back.problems).toEqual([]);
    for (const f of s.fields)
      expect(back.values[f.key]).toBeCloseTo(other[f.key]!, 4 - Math.floor(Math.log10(Math.abs(other[f.key]!) || 1)));
  });
  it("an address that can't be used is told and the usual value stands", () => {
    const s = sumById("light")!;
    const r = readValues(s, (k) => ({ V: "abc", n: "2.5", I: "8m" })[k] ?? null);
    expect(r.problems).toHaveLength(2);
    expect(r.values).toMatchObject({ V: 5, n: 1, I: 0.008 });
  });
});

describe("in a project", () => {
  it("lights, buttons, dividers and buses offer their sums with the project's own values", () => {
    const p = planned([
      BOARD3,
      USB,
      { ref: "D1", part: "discrete/led-red" },
      { ref: "SW1", part: "discrete/button" },
      { ref: "M1", part: "module/hc-sr04" },
      { ref: "M2", part: "module/bme280" },
    ]);
    const list = hookupsOf(circuitOf(p, catalogue));
    expect(list.map((h) => h.sum).sort()).toEqual(["debounce", "divider", "i2c-pull-up", "light", "pull"]);
    expect(list.find((h) => h.sum === "divider")!.values).toMatchObject({ V: 5, ceiling: 3.5 });
  });
  it("the answer goes in and mends what was wrong", () => {
    const p = planned([BOARD3, USB, { ref: "M1", part: "module/hc-sr04" }]);
    const h = hookupsOf(circuitOf(p, catalogue)).find((x) => x.sum === "divider")!;
    const r = run("divider", h.values);
    expect(rules(p)).toContain("stop level.overdrive");
    const q = takeAnswers(h, h.values, r.of).reduce((x, e) => applyEdit(x, e, catalogue), p);
    expect(rules(q)).toEqual([]);
  });
  it("a bounce filter stands between button and board", () => {
    const p = planned([BOARD5, USB, { ref: "SW1", part: "discrete/button" }]);
    const h = hookupsOf(circuitOf(p, catalogue)).find((x) => x.sum === "debounce")!;
    const r = run("debounce", h.values);
    const q = takeAnswers(h, { ...startValues(sumById("debounce")!), ...h.values }, r.of).reduce(
      (x, e) => applyEdit(x, e, catalogue),
      p,
    );
    const c = circuitOf(q, catalogue);
    expect([...c.netlist.expanded.instances.keys()]).toEqual(expect.arrayContaining(["RFSW1", "CFSW1"]));
    expect(rules(q)).toEqual([]);
  });
});
