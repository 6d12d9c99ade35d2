import { describe, expect, it } from "vitest";
import { circuitOf } from "..";
import { BOARD3, BOARD5, CABLE, catalogue, make, USB } from "../../testing";
import { converterOutput } from ".";

const spread = (min: number, typ: number, max: number) => ({ min, typ, max });

describe("converters", () => {
  it("a diode takes its drop off, most at the low end", () => {
    const out = converterOutput(
      { from: "a", to: "b", kind: "diode", drop_V: spread(0.2, 0.35, 0.5), limit_mA: 1000, says: "d" },
      spread(4.75, 5, 5.25),
    );
    expect(out.min).toBeCloseTo(4.25, 9);
    expect(out.typ).toBeCloseTo(4.65, 9);
    expect(out.max).toBeCloseTo(5.05, 9);
  });
  it("a linear regulator holds its voltage until the input is short of the drop-out", () => {
    const reg = {
      from: "a",
      to: "b",
      kind: "linear" as const,
      V: spread(4.9, 5, 5.1),
      dropout_V: 1.2,
      limit_mA: 800,
      says: "r",
    };
    expect(converterOutput(reg, spread(8, 9, 10))).toEqual(spread(4.9, 5, 5.1));
    // 5.5 V in: 5.5 − 1.2 = 4.3 V is all that is left.
    expect(converterOutput(reg, spread(5.5, 6, 9)).min).toBeCloseTo(4.3, 9);
  });
});

describe("the supply tree", () => {
  const amps = (c: ReturnType<typeof circuitOf>, id: string) => c.power.limits.find((l) => l.id === id)!.flow;
  it("a switching regulator draws I·Vout/(Vin·efficiency), through the diode and out of the port", () => {
    const p = make(
      [BOARD3, USB, { ref: "M2", part: "module/ssd1306-i2c" }],
      [CABLE, ["M2.VCC", "B1.3V3"], ["M2.GND", "B1.GND"]],
    );
    const c = circuitOf(p, catalogue);
    // 95 mA for the chip and 30 mA for the display at peak.
    expect(amps(c, "B1:vsys>v33").peak).toBeCloseTo(0.125, 9);
    const want = (0.125 * 3.4) / (4.25 * 0.85);
    expect(amps(c, "B1:vbus>vsys").peak).toBeCloseTo(want, 6);
    expect(amps(c, "S1:source").peak).toBeCloseTo(want, 6);
  });
  it("a linear board passes its current straight on", () => {
    const p = make(
      [BOARD5, USB, { ref: "M1", part: "module/hc-sr04" }],
      [CABLE, ["M1.VCC", "B1.5V"], ["M1.GND", "B1.GND"]],
    );
    const c = circuitOf(p, catalogue);
    expect(amps(c, "S1:source")).toMatchObject({ idle: 0.032, typ: 0.065, peak: 0.08 });
  });
  it("the path matters: a strip at its own supply loads neither the board nor the port", () => {
    const strip = { ref: "M3", part: "module/ws2812b-strip", options: { pixels: 20, brightness: 0.5 } };
    const at = (supply: string) => {
      const parts = [BOARD5, USB, { ref: "S2", part: "supply/adapter-5v-2a" }, strip];
      return circuitOf(make(parts, [CABLE, ["M3.5V", supply], ["M3.GND", "B1.GND"], ["S2.GND", "B1.GND"]]), catalogue);
    };
    // 20 · (1 + 59 · 0.5) mA = 610 mA.
    expect(amps(at("S2.5V"), "S2:source").peak).toBeCloseTo(0.61, 9);
    expect(amps(at("S2.5V"), "S1:source").peak).toBeCloseTo(0.06, 9);
    expect(amps(at("B1.5V"), "S1:source").peak).toBeCloseTo(0.67, 9);
    expect(amps(at("B1.5V"), "B1:usb>v5").peak).toBeCloseTo(0.67, 9);
    // At the port's own bare lead it loads the port but not the board.
    expect(amps(at("S1.5V"), "S1:source").peak).toBeCloseTo(0.67, 9);
    expect(amps(at("S1.5V"), "B1:usb>v5").peak).toBeCloseTo(0.06, 9);
  });
  it("a light's current comes out of the chip's supply", () => {
    const led = { ref: "D1", part: "discrete/led-red", companions: { seriesResistor: { ohm: 390 } } };
    const c = circuitOf(make([BOARD5, USB, led], [CABLE, ["D1.A", "B1.D7"], ["D1.K", "B1.GND"]]), catalogue);
    const I = c.leds[0]!.I!;
    expect(amps(c, "S1:source").typ).toBeCloseTo(0.05 + I.typ, 9);
    expect(c.power.limits.find((l) => l.id === "S1:source")!.loads.map((l) => l.ref)).toEqual(["B1", "D1"]);
  });
  it("nothing flows where nothing is fed", () => {
    const c = circuitOf(make([BOARD5]), catalogue);
    expect(c.power.limits).toEqual([]);
    expect(c.power.rails.find((r) => r.name.startsWith("5V"))!.V).toBeNull();
  });
});
