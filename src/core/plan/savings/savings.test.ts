import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { addressesCsv, planMarkdown, planText } from "../../formats";
import { targetById } from "../../firmware";
import { loadProject, readProject, writeProject } from "../../project";
import { BOARD3, BOARD5, catalogue, looked, make, rules, USB } from "../../testing";
import { gridAddressTables, partsList } from "../../build";
import {
  alikeParts,
  applySaving,
  charlieAddresses,
  charlieLines,
  ghostKeys,
  gridAddresses,
  gridSize,
  gridResistor,
  ringResistor,
  savings,
  scanKeys,
} from ".";

const ask = { want: "lights" as const, n: 20, I: 0.008, V: 5, pin_A: 0.02 };
const way = (id: string, over: object = {}) => savings({ ...ask, ...over }).find((s) => s.id === id)!;
const many = (part: string, letters: string, n: number, more: object = {}) =>
  Array.from({ length: n }, (_, i) => ({ ref: `${letters}${i + 1}`, part, label: `Place ${i + 1}`, ...more }));

describe("lines and addresses", () => {
  it("a grid is as square as can be", () => {
    expect(gridSize(12)).toEqual({ rows: 3, cols: 4 });
    expect(gridSize(16)).toEqual({ rows: 4, cols: 4 });
    expect(gridSize(5)).toEqual({ rows: 2, cols: 3 });
    expect(gridSize(64)).toEqual({ rows: 8, cols: 8 });
    for (let n = 1; n <= 256; n++) {
      const { rows, cols } = gridSize(n);
      expect(rows * cols).toBeGreaterThanOrEqual(n);
      for (let r = 1; r <= n; r++) expect(rows + cols).toBeLessThanOrEqual(r + Math.ceil(n / r));
    }
  });
  it("n lines between every pair give n · (n − 1) places", () => {
    expect([2, 3, 6, 7, 12, 13, 20, 21].map(charlieLines)).toEqual([2, 3, 3, 4, 4, 5, 5, 6]);
    const list = charlieAddresses(
      Array.from({ length: 20 }, (_, i) => `D${i + 1}`),
      5,
    );
    expect(new Set(list.map((x) => `${x.a} ${x.b}`)).size).toBe(20);
    expect(list.every((x) => x.a !== x.b)).toBe(true);
    expect(list[0]).toEqual({ name: "D1", a: "L1", b: "L2" });
    expect(list[4]).toEqual({ name: "D5", a: "L2", b: "L1" });
  });
  it("grids count row by row", () => {
    const list = gridAddresses(["a", "b", "c", "d", "e"], 3);
    expect(list.map((x) => x.a + x.b)).toEqual(["R1C1", "R1C2", "R1C3", "R2C1", "R2C2"]);
  });
});

describe("ghost keys", () => {
  const corner = [
    { row: 0, col: 0 },
    { row: 0, col: 2 },
    { row: 2, col: 0 },
  ];
  it("three in a corner fake the fourth; diodes keep them apart", () => {
    expect(ghostKeys(3, 3, corner, false)).toEqual([{ row: 2, col: 2 }]);
    expect(ghostKeys(3, 3, corner, true)).toEqual([]);
  });
  it("two keys never fake a third, and what is pressed is always seen", () => {
    for (let a = 0; a < 9; a++)
      for (let b = 0; b < 9; b++) {
        const pressed = [a, b].map((k) => ({ row: Math.floor(k / 3), col: k % 3 }));
        expect(ghostKeys(3, 3, pressed, false)).toEqual([]);
        for (const p of pressed) expect(scanKeys(3, 3, pressed, false)).toContainEqual(p);
      }
  });
});

describe("the sums", () => {
  it("a pin each: 20 pins, full brightness", () => {
    expect(way("direct")).toMatchObject({ pins: 20, wires: 21, duty: 1, brightness: 1, saves: 0 });
    // 20 LEDs and 20 resistors with two leads each, 21 wires with two ends: 40 + 40 + 42.
    expect(way("direct").joints).toBe(122);
  });
  it("a plain grid shares the row's pin: 4 × 5, five lights on one pin, a quarter of the time", () => {
    const g = way("light-grid");
    expect(g).toMatchObject({ pins: 9, duty: 0.25, refresh_Hz: 250 });
    // (5.25 − 1.8) V · 5 / (0.95 · 20 mA) = 908 Ω, next up 1 kΩ: 3 mA each, 15 mA in the pin, a quarter of the time.
    expect(g.pin_A).toBeCloseTo(0.015, 9);
    expect(g.brightness).toBeCloseTo(0.003 / 4 / 0.008, 9);
  });
  it("charlieplexed: five lines, four at once on one pin and one resistor, a fifth of the time", () => {
    const c = way("charlie");
    expect(c).toMatchObject({ pins: 5, duty: 0.2, refresh_Hz: 200 });
    // 220 Ω a line: 3 V = I · 220 Ω + 4 · I · 220 Ω gives 2.73 mA each; alone 3 V / 440 Ω = 6.8 mA.
    expect(c.pin_A).toBeCloseTo((4 * 3) / (5 * 220), 9);
    expect(c.brightness).toBeCloseTo(3 / (5 * 220) / 5 / 0.008, 9);
    expect(c.minds.join()).toContain("6.8 mA alone in its group and 2.7 mA with all of it");
  });
  it("shift registers: three chips, each output no more than the chip likes", () => {
    const s = way("74hc595");
    expect(s.parts.find((p) => p.part === "module/74hc595")!.count).toBe(3);
    // 70 mA over eight outputs is 8.75 mA, but an output likes 6 mA.
    expect(s).toMatchObject({ pins: 3, pin_A: 0.006, brightness: 0.75 });
    expect(s.refresh_Hz).toBeCloseTo(1e6 / 24, 6);
  });
  it("addressable lights: 20 · 30 µs and a pause of 300 µs", () => {
    expect(way("ws2812b")).toMatchObject({ pins: 1 });
    expect(way("ws2812b").refresh_Hz).toBeCloseTo(1 / (20 * 30e-6 + 300e-6), 6);
  });
  it("the resistor of a line keeps its pin within what it likes, whatever is lit, at the worst case", () => {
    const Vf = { min: 1.8, typ: 2 };
    expect(gridResistor({ ...ask, Vf, atOnce: 5 }).ohm).toBe(1000);
    expect(ringResistor({ ...ask, Vf, atOnce: 4 }).ohm).toBe(220);
    for (const V of [3.3, 5])
      for (const pin_A of [0.004, 0.008, 0.02])
        for (let atOnce = 1; atOnce <= 15; atOnce++) {
          const a = { V, pin_A, I: 0.01, Vf, atOnce };
          const [g, r] = [gridResistor(a), ringResistor(a)];
          const worst = V * 1.05 - Vf.min;
          expect((worst / (g.ohm * 0.95)) * atOnce).toBeLessThanOrEqual(pin_A + 1e-12);
          expect((worst / (r.ohm * 0.95 * (1 + atOnce))) * atOnce).toBeLessThanOrEqual(pin_A + 1e-12);
          expect(r.alone_A).toBeLessThanOrEqual(0.01 + 1e-12);
        }
  });
  it("gives only what makes sense, fewest pins first", () => {
    for (const want of ["lights", "keys", "digits", "sensors"] as const)
      for (const n of [1, 4, 9, 40, 256]) {
        const list = savings({ ...ask, want, n });
        expect(list.map((s) => s.pins)).toEqual([...list.map((s) => s.pins)].sort((a, b) => a - b));
        expect(new Set(list.map((s) => s.id)).size).toBe(list.length);
        for (const s of list) {
          expect(s.pins).toBeGreaterThan(0);
          if (s.brightness !== null) expect(s.brightness).toBeLessThanOrEqual(1);
          if (s.pin_A !== null) expect(s.pin_A).toBeLessThanOrEqual(0.0201);
          for (const p of s.parts)
            if (p.part !== "module/ws2812b-strip") expect(catalogue.get(p.part), p.part).toBeDefined();
        }
      }
    expect(savings({ ...ask, want: "keys", n: 12 }).some((s) => s.id === "ladder")).toBe(false);
  });
});

describe("put into a project", () => {
  const keys = () => make([BOARD5, USB, ...many("discrete/button", "SW", 12)]);
  const take = (p: ReturnType<typeof make>, id: string) => {
    const r = applySaving(p, catalogue, alikeParts(p, catalogue)[0]!, id);
    if (!r.ok) throw new Error(r.why);
    return r.project;
  };
  it("finds the alike parts, with the current that their lights were given", () => {
    const p = make([
      BOARD5,
      USB,
      ...many("discrete/led-red", "D", 5, { options: { current_mA: 4 } }),
      ...many("discrete/button", "SW", 3),
    ]);
    expect(alikeParts(p, catalogue)).toMatchObject([
      { want: "lights", refs: ["D1", "D2", "D3", "D4", "D5"], ask: { n: 5, I: 0.004, V: 5 } },
    ]);
  });
  it.each(["grid", "grid-diodes"])("twelve buttons as a %s: seven pins, no trouble, twelve buttons to buy", (id) => {
    const p = take(keys(), id);
    expect(rules(p)).toEqual([]);
    expect(p.parts.some((x) => x.part === "discrete/button")).toBe(false);
    const c = circuitOf(p, catalogue);
    expect(new Set(c.netlist.bindings.map((b) => b.hostPin)).size).toBe(7);
    const bom = partsList(c);
    expect(bom.find((b) => b.part === "discrete/button")).toMatchObject({ quantity: 12 });
    expect(bom.find((b) => b.part === "discrete/diode-1n4148")?.quantity).toBe(id === "grid" ? undefined : 12);
    const [table] = gridAddressTables(c);
    expect(table!.rows).toHaveLength(12);
    expect(table!.rows[5]).toMatchObject({
      name: "Place 6",
      a: "R2",
      b: "C2",
      pins: expect.stringMatching(/^\w+ and \w+$/),
    });
    expect(readProject(writeProject(p), catalogue)).toMatchObject({ ok: true });
  });
  it.each([
    [BOARD5, "light-grid", 7],
    [BOARD3, "charlie", 4],
    [BOARD5, "74hc595", 3],
    [BOARD3, "mcp23017", 2],
  ])("twelve lights on %o as %s: %i board pins, no trouble", (board, id, pins) => {
    const p = take(make([board, USB, ...many("discrete/led-red", "D", 12)]), id);
    // What the saving brings has a header that nobody has seen yet.
    expect(rules(looked(p))).toEqual([]);
    const used = circuitOf(p, catalogue)
      .netlist.bindings.filter((b) => b.host === "B1" && !b.chainedAfter)
      .map((b) => b.hostPin);
    expect(new Set(used).size).toBe(pins);
  });
  it("a second grid gets a name of its own", () => {
    const one = take(
      make([{ ref: "B1", part: "board/atmega2560-long" }, USB, ...many("discrete/button", "SW", 12)]),
      "grid",
    );
    const two = take({ ...one, parts: [...one.parts, ...many("discrete/button", "SW", 12)] }, "grid-diodes");
    const again = take({ ...two, parts: [...two.parts, ...many("discrete/button", "SW", 12)] }, "grid");
    expect(new Set(again.customParts.map((p) => p.id)).size).toBe(3);
    expect(loadProject(JSON.parse(writeProject(again)), catalogue)).toMatchObject({ ok: true });
  });
  it("table, printed plan and program say the same", () => {
    const p = take(keys(), "grid");
    const c = circuitOf(p, catalogue);
    const file = targetById("sketch")!
      .files(c)
      .find((f) => f.path === "starter/starter.ino")!.text;
    const places = gridAddressTables(c)[0]!.rows.map(
      (r) => `{${Number(r.a.slice(1)) - 1}, ${Number(r.b.slice(1)) - 1}}`,
    );
    expect(file).toContain(`keys_place[][2] = {${places.join(", ")}};`);
    expect(addressesCsv(c, gridAddressTables(c))).toContain("Place 6,R2,C2");
    const places6 = gridAddressTables(c)[0]!.rows[5]!;
    expect(planMarkdown(planText(c))).toContain(`| Place 6 | R2 | C2 | ${places6.pins} |`);
  });
  it("a way that can't be put in says so", () => {
    const p = keys();
    expect(applySaving(p, catalogue, alikeParts(p, catalogue)[0]!, "direct")).toMatchObject({ ok: false });
  });
});
