import { describe, expect, it } from "vitest";
import { fixed, type Element, type Network, type Spread } from "./network";
import { prepare, solveAt } from "./point";
import { range, worst } from "./worst";
import { randomNetwork } from "./random";

const pct = (v: number, t: number, knob: string): Spread => ({ min: v * (1 - t), typ: v, max: v * (1 + t), knob });
const net = (elements: Element[], held: Record<string, Spread>): Network => ({
  elements,
  held: new Map(Object.entries(held)),
});
const R = (id: string, a: string, b: string, ohm: number, t = 0): Element => ({
  kind: "resistor",
  id,
  a,
  b,
  ohm: pct(ohm, t, id),
});
/** A transistor with a gain of 100, its emitter at ground. */
const q: Extract<Element, { kind: "bjt" }> = {
  kind: "bjt",
  id: "Q1",
  npn: true,
  b: "b",
  c: "c",
  e: "g",
  Vbe: fixed(0.7),
  gain: fixed(100),
  sat_V: 0.2,
};
const at0 = (n: Network) => solveAt(prepare(n), new Map());

describe("one point", () => {
  it("divides: 12 V over 30 kΩ and 10 kΩ is 3 V", () => {
    const p = at0(net([R("R1", "a", "m", 30e3), R("R2", "m", "g", 10e3)], { a: fixed(12), g: fixed(0) }));
    expect(p.volts("m")).toBeCloseTo(3, 6);
  });

  it("solves a loaded two-stage ladder: 6 V over 1k, 2k ‖ (1k + 1k) leaves half at each step", () => {
    const ladder = [R("R1", "a", "x", 1e3), R("R2", "x", "g", 2e3), R("R3", "x", "y", 1e3), R("R4", "y", "g", 1e3)];
    const p = at0(net(ladder, { a: fixed(6), g: fixed(0) }));
    expect([p.volts("x"), p.volts("y")]).toEqual([expect.closeTo(3, 6), expect.closeTo(1.5, 6)]);
  });

  it("lights: (5 − 2.0) V over 220.5 Ω is 13.6 mA, reversed nothing", () => {
    const led = (a: string, b: string): Element => ({
      kind: "diode",
      id: "D1",
      a,
      b,
      Vf: fixed(2),
      ohm: 0.5,
      knee: 0.8,
      knee_ohm: 4000,
    });
    const r = R("R1", "a", "m", 220);
    const d = led("m", "g");
    expect(at0(net([r, d], { a: fixed(5), g: fixed(0) })).amps(d)).toBeCloseTo(3 / 220.5, 5);
    const back = led("g", "m");
    expect(Math.abs(at0(net([r, back], { a: fixed(5), g: fixed(0) })).amps(back))).toBeLessThan(1e-9);
  });

  it("saturates: a base of 4.3 kΩ at 5 V takes 1 mA, the collector all that 1 kΩ gives", () => {
    const p = at0(
      net([R("R1", "a", "b", 4300), R("R2", "v", "c", 1000), q], { a: fixed(5), v: fixed(12), g: fixed(0) }),
    );
    expect(p.base(q)).toBeCloseTo(1e-3, 5);
    expect(p.amps(q)).toBeCloseTo(11.8e-3, 4);
    expect(p.volts("c")).toBeCloseTo(0.2, 2);
  });

  it("amplifies where the collector is fed well: 10 µA of base current and a gain of 100 make 1 mA", () => {
    const p = at0(
      net([R("R1", "a", "b", 430e3), R("R2", "v", "c", 1000), q], { a: fixed(5), v: fixed(12), g: fixed(0) }),
    );
    expect(p.amps(q)).toBeCloseTo(1e-3, 5);
    expect(p.volts("c")).toBeCloseTo(11, 2);
  });

  it("follows: a load at the source of a MOSFET gets the gate less its threshold", () => {
    const q: Element = {
      kind: "fet",
      id: "Q1",
      n: true,
      g: "a",
      d: "v",
      s: "s",
      Vth: fixed(2),
      ohm: 0.03,
      full_V: 4.5,
    };
    const p = at0(net([R("L", "s", "g", 100), q], { a: fixed(5), v: fixed(12), g: fixed(0) }));
    expect(p.volts("s")).toBeGreaterThan(2.9);
    expect(p.volts("s")).toBeLessThan(3.01);
  });

  it("says what floats", () => {
    const n = net([R("R1", "x", "y", 1000)], { g: fixed(0) });
    expect([...prepare(n).floating].sort()).toEqual(["x", "y"]);
  });
});

describe("the worst corner", () => {
  it("turns what moves together together: a divider of its own reference does not move with it", () => {
    const rail = pct(5, 0.05, "S1");
    const n = net([R("R1", "a", "m", 10e3, 0.05), R("R2", "m", "g", 10e3, 0.05)], { a: rail, g: fixed(0) });
    const r = range(prepare(n), { of: "volts", node: "m" });
    expect(r.max).toBeCloseTo(5.25 * (10.5 / 20), 6);
    expect(r.min).toBeCloseTo(4.75 * (9.5 / 20), 6);
    expect(r.typ).toBeCloseTo(2.5, 6);
  });

  it("equals brute force over all corners of 150 random networks", () => {
    let checked = 0;
    for (let seed = 1; seed <= 150; seed++) {
      const n = randomNetwork(seed, { spread: true, most: 6 });
      const p = prepare(n);
      const knobs = new Set<string>();
      const note = (s: Spread) => s.min !== s.max && s.knob && knobs.add(s.knob);
      for (const s of n.held.values()) note(s);
      for (const e of n.elements) {
        if (e.kind === "resistor") note(e.ohm);
        else if (e.kind === "diode") note(e.Vf);
        else if (e.kind === "bjt") [e.Vbe, e.gain].forEach(note);
        else note(e.Vth);
      }
      const names = [...knobs];
      if (names.length > 9) continue;
      const node = [...p.index.keys()].find((x) => !p.floating.has(x));
      if (!node) continue;
      let [lo, hi] = [Infinity, -Infinity];
      for (let m = 0; m < 2 ** names.length; m++) {
        const corner = new Map(names.map((k, i) => [k, m & (1 << i) ? 1 : -1]));
        const v = solveAt(p, corner).volts(node);
        [lo, hi] = [Math.min(lo, v), Math.max(hi, v)];
      }
      const q = { of: "volts", node } as const;
      const slack = 1e-4 + 1e-3 * (hi - lo);
      expect(worst(p, q, "max").value, `seed ${seed}: highest`).toBeGreaterThan(hi - slack);
      expect(worst(p, q, "min").value, `seed ${seed}: lowest`).toBeLessThan(lo + slack);
      checked++;
    }
    expect(checked).toBeGreaterThan(100);
  });
});
