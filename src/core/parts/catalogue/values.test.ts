import { describe, expect, it } from "vitest";
import { bjtAt, bjtStage } from "../../circuit/formulas";
import { circuitOf } from "../../circuit";
import { spiBuses } from "../../circuit/buses";
import { evaluate, type Expr } from "../../quantity";
import { catalogue, planned } from "../../testing";
import { withOptions } from "./options";
import { validatePart } from "./validate";

/**
 * Points that the data sheets name, written down as they stand there: supply, current, value. The data must meet each, or
 * stay on the safe side of it, and between two of them never be better than the straight line.
 */
type Key = "VIH" | "VIL" | "VOH" | "VOL" | "absMax";
type Point = [part: string, level: string, key: Key, V: number, mA: number, is: number];
const POINTS: Point[] = [
  ...["board/atmega328p-long", "board/atmega328p-compact", "chip/atmega328p-dip28", "board/atmega2560-long"].flatMap(
    (id): Point[] => [
      [id, "main", "VOH", 5, 20, 4.2],
      [id, "main", "VOL", 5, 20, 0.9],
      [id, "main", "VOH", 3, 10, 2.3],
      [id, "main", "VOL", 3, 10, 0.6],
      [id, "main", "VIH", 5, 0, 3],
      [id, "main", "VIL", 5, 0, 1.5],
    ],
  ),
  ["board/atmega32u4-compact", "main", "VIH", 5, 0, 1.9],
  ["board/atmega32u4-compact", "main", "VIL", 5, 0, 0.9],
  ["board/atmega32u4-compact", "main", "VOH", 5, 10, 4.2],
  ["board/atmega32u4-compact", "main", "VOL", 5, 10, 0.7],
  ["chip/atmega32a-dip40", "main", "VIL", 5, 0, 1],
  ["chip/attiny85-dip8", "main", "VOH", 3, 5, 2.5],
  ["chip/attiny85-dip8", "main", "VOL", 3, 5, 0.5],
  ["board/stm32f103-forty", "main", "VOH", 3.3, 20, 2],
  ["board/stm32f103-forty", "main", "VOL", 3.3, 20, 1.3],
  ["board/stm32f411-forty", "main", "VOH", 3.3, 8, 2.9],
  ["board/esp8266-mini", "pin", "VOH", 3.3, 12, 2.64],
  ["board/esp8266-mini", "pin", "VOL", 3.3, 12, 0.33],
  ["module/drv8833", "sleep", "VIH", 5, 0, 2.5],
  ["module/drv8833", "sleep", "VIL", 5, 0, 0.5],
  ["module/max3485", "in", "absMax", 3.3, 0, 7],
  ["module/ads1115", "main", "absMax", 2, 0, 5.5],
  ["module/tca9548a", "main", "absMax", 1.8, 0, 5.5],
  ["module/pca9685", "main", "absMax", 3.3, 0, 5.5],
  ["module/74hc595", "main", "VIH", 4.5, 0, 3.15],
  ["module/74hc595", "main", "VIH", 2, 0, 1.5],
  ["module/74hc595", "main", "VIL", 4.5, 0, 1.35],
  ["module/74hc595", "main", "VIL", 2, 0, 0.5],
  ["module/74hc595", "out", "VOH", 4.5, 6, 3.84],
  ["module/74hc595", "out", "VOL", 4.5, 6, 0.33],
];
const valueOf = (id: string, level: string, key: Key, V: number, mA: number) =>
  evaluate(catalogue.get(id)!.levels[level]![key] as Expr, { V, I: mA / 1000 });

describe("values of the data sheets", () => {
  it.each(POINTS)("%s %s %s at %s V and %s mA is %s V, or safer", (id, level, key, V, mA, is) => {
    const v = valueOf(id, level, key, V, mA);
    // What is guaranteed may be given as less, never as more; what is demanded the other way round.
    if (key === "VOH" || key === "VIL" || key === "absMax") expect(v).toBeLessThanOrEqual(is + 0.011);
    else expect(v).toBeGreaterThanOrEqual(is - 0.011);
    // And not so far off that it says nothing.
    expect(Math.abs(v - is)).toBeLessThan(0.25);
  });
  it("outputs only get worse with current, and never better with less supply", () => {
    for (const part of catalogue.parts)
      for (const [name, l] of Object.entries(part.levels)) {
        if (l.VOH === undefined || l.VOL === undefined) continue;
        const s = part.supplies[l.supply]!;
        const [lo, hi] = [Number(s.V.min), Number(s.V.max)];
        if (!Number.isFinite(lo + hi)) continue;
        const at = (key: "VOH" | "VOL", V: number, I: number) => evaluate(l[key] as Expr, { V, I });
        for (const V of [lo, (lo + hi) / 2, hi])
          for (const I of [0.001, 0.004, 0.01]) {
            expect(at("VOH", V, I), `${part.id} ${name}`).toBeGreaterThanOrEqual(at("VOH", V, I + 0.002) - 1e-9);
            expect(at("VOL", V, I), `${part.id} ${name}`).toBeLessThanOrEqual(at("VOL", V, I + 0.002) + 1e-9);
            if (!/\*I/.test(String(l.VOH))) continue;
            // Less supply never loses less.
            expect(V - at("VOH", V, I), `${part.id} ${name} at ${V}`).toBeGreaterThanOrEqual(
              hi - at("VOH", hi, I) - 1e-9 - 0.2 * (hi - V),
            );
          }
      }
  });
  it("every AVR's reset pin wants nine tenths for a high, a tenth for a low", () => {
    const list = catalogue.parts.filter((p) => p.board?.family === "avr");
    expect(list.length).toBeGreaterThan(8);
    for (const p of list)
      for (const pin of p.pins.filter((x) => x.hazards?.some((h) => h.kind === "reset"))) {
        const l = p.levels[pin.level!]!;
        expect(evaluate(l.VIH!, { V: 5 }), p.id).toBeCloseTo(4.5);
        expect(evaluate(l.VIL!, { V: 5 }), p.id).toBeCloseTo(0.5);
      }
  });
  it("a small display's logic is 3.3 V whatever feeds it, unless it has no regulator", () => {
    for (const id of ["module/ssd1306-i2c", "module/ssd1306-spi", "module/st7735", "module/st7789", "module/ili9341"]) {
      const p = catalogue.get(id)!;
      const inner = p.supplies[p.levels.main!.supply]!;
      expect(Number(inner.V.max), id).toBeLessThanOrEqual(3.6);
      expect(
        p.converters.some((c) => c.to === p.levels.main!.supply && c.kind === "linear"),
        id,
      ).toBe(true);
      expect(Number(p.supplies.main!.V.min), id).toBeLessThanOrEqual(3);
    }
    const plain = withOptions(catalogue.get("module/ssd1306-i2c")!, { supply: "3v3-only" });
    expect(plain.converters[0]!.kind).toBe("wire");
    expect(plain.supplies.main!.V.max).toBe(3.6);
  });
  it("gain and base voltage of a transistor follow its collector current, the worse of two points between them", () => {
    const e = catalogue.get("discrete/npn-2n2222")!.elements[0]!;
    if (e.kind !== "bjt") throw new Error(e.kind);
    const def = { hFE_min: e.hFE_min, Vbe: { min: 0.6, typ: 0.75, max: 1.2 }, at: e.at };
    expect(bjtAt(def, 0.01)).toMatchObject({ hFE_min: 50 });
    expect(bjtAt(def, 0.02)).toMatchObject({ hFE_min: 75, Vbe: { max: 0.9 } });
    expect(bjtAt(def, 0.1)).toMatchObject({ hFE_min: 75, Vbe: { max: 0.9 } });
    expect(bjtAt(def, 0.12)).toMatchObject({ hFE_min: 50, Vbe: { max: 1.2 } });
    // Beyond the last point nothing is better than there.
    const last = e.at!.at(-1)!;
    expect(bjtAt(def, 2)).toEqual({
      hFE_min: Math.min(35, last.hFE_min),
      Vbe: { ...def.Vbe, max: Math.max(1.2, last.Vbe_max) },
    });
    expect(bjtAt(def, 2).Vbe.max).toBe(2);
    expect(bjtAt({ hFE_min: 110, Vbe: def.Vbe }, 0.05)).toEqual({ hFE_min: 110, Vbe: def.Vbe });
  });
  it("a pair in one case is fully on at its data sheet's ratio, and judged by that; a single one by its own", () => {
    const pair = catalogue.get("discrete/npn-tip120")!.elements[0]!;
    if (pair.kind !== "bjt") throw new Error(pair.kind);
    // 3 A with 12 mA into the base.
    expect(pair.saturated).toBe(3000 / 12);
    const ask = {
      V: { min: 4.5, typ: 5, max: 5.25 },
      Vbe: { min: 1.2, typ: 1.4, max: 2.5 },
      hFE_min: 1000,
      VCEsat_V: 2,
    };
    const stage = bjtStage({ ...ask, load_A: 1, saturated: 250 })!;
    // (4.5 - 2.5) V over 1 A / 187.5.
    expect(stage.exact).toBeCloseTo(375, 6);
    expect(stage.ohm).toBe(330);
    expect(stage.beta).toBeLessThan(250);
    const single = bjtStage({ ...ask, load_A: 0.05 })!;
    expect(single.exact).toBeCloseTo(2 / (0.05 / 15), 6);
  });
  it("only a bare chip's reset takes the programmer's 12 V: on a board other things hang on it", () => {
    for (const p of catalogue.parts) {
      const reset = p.levels.reset;
      if (reset?.absMax === 13) expect(p.id).toMatch(/^chip\//);
    }
    expect(catalogue.get("board/atmega328p-long")!.levels.reset!.absMax).toBe("V+0.5");
  });
  it("a converter's clock follows the lowest voltage that it gets", () => {
    const clock = (board: string) => {
      const p = planned([
        { ref: "B1", part: board },
        { ref: "S1", part: "supply/usb-port" },
        { ref: "M1", part: "module/mcp3008" },
      ]);
      return spiBuses(circuitOf(p, catalogue))[0]!.members[0]!.max_Hz;
    };
    const [slow, fast] = [clock("board/rp2040-forty"), clock("board/atmega328p-long")];
    expect(slow).toBeGreaterThan(1_350_000);
    expect(slow).toBeLessThan(2_100_000);
    expect(fast).toBeGreaterThan(3_000_000);
    expect(fast).toBeLessThanOrEqual(3_600_000);
  });
  it("62 addresses of the sixteen-way driver, none of them the one to which all answer", () => {
    const o = catalogue.get("module/pca9685")!.options.find((x) => x.key === "address")!;
    if (o.kind !== "choice") throw new Error(o.kind);
    const list = o.choices.map((c) => Number(c.value));
    expect(list).not.toContain(0x70);
    expect(new Set(list).size).toBe(list.length);
    for (const a of list) expect(a >= 0x40 && a <= 0x77).toBe(true);
    expect(catalogue.get("module/pca9685")!.groups[0]!.also).toEqual(["0x70"]);
  });
  it("an upload has less than the whole flash where a loader or a radio keeps some, never more", () => {
    const of = (id: string) => catalogue.get(id)!.board!;
    // Of 32 kB, the larger loaders in use keep 2 on ATmega328P and 4 on ATmega32U4; of 256 kB they keep 8.
    expect(of("board/atmega328p-long").upload_kB).toBe(30);
    expect(of("board/atmega32u4-compact").upload_kB).toBe(28);
    expect(of("board/atmega2560-long").upload_kB).toBe(248);
    for (const p of catalogue.parts)
      if (p.board?.upload_kB) expect(p.board.upload_kB, p.id).toBeLessThan(p.board.flash_kB);
    expect(of("chip/atmega328p-dip28").upload_kB).toBeUndefined();
    const board = catalogue.get("board/atmega328p-long")!;
    const r = validatePart(JSON.parse(JSON.stringify({ ...board, board: { ...board.board, upload_kB: 33 } })));
    expect(!r.ok && r.problems[0]!.message).toBe("33 kB are more than its flash has (32 kB)");
  });
});
