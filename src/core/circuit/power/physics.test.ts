import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { i2cRise, pullUpWindow, realBaud } from "../formulas";
import { circuitOf } from "..";
import { dropAt } from "../solve/model";
import { BOARD3, BOARD5, CABLE, catalogue, make, planned, USB } from "../../testing";
import {
  adviseSupplies,
  awgAmpacity,
  awgOhmPerMetre,
  batteries,
  batteryLife,
  inCold,
  batteryVolts,
  gaugeFor,
  junction,
  lowestNeeded,
  stageHeat,
  supplyWires,
  type Battery,
} from ".";

const wires = (p: ReturnType<typeof make>) => {
  const c = circuitOf(p, catalogue);
  return supplyWires(c.netlist, c.power);
};
const STRIP = {
  ref: "M1",
  part: "module/ws2812b-strip",
  companions: { seriesResistor: { ohm: 330 }, bulkCapacitor: { F: 0.001 } },
};

describe("wires", () => {
  it("has the resistance that the wire tables print: 20 AWG 33.3, 26 AWG 134, 18 AWG 20.9 mΩ/m", () => {
    expect(awgOhmPerMetre(20) * 1000).toBeCloseTo(33.3, 1);
    expect(awgOhmPerMetre(26) * 1000).toBeCloseTo(133.9, 0);
    expect(awgOhmPerMetre(18) * 1000).toBeCloseTo(20.9, 1);
  });
  it("a gauge between two listed ones carries what the thinner of them does", () => {
    expect(awgAmpacity(22)).toBe(3.5);
    expect(awgAmpacity(21)).toBe(3.5);
  });
  it("the chosen gauge holds current and drop, and a thicker one is never chosen for less", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 8, noNaN: true }), fc.integer({ min: 5, max: 300 }), (A, cm) => {
        const awg = gaugeFor(A, cm, 5);
        const ok = awg === 10 || (awgAmpacity(awg) >= A && 2 * (cm / 100) * awgOhmPerMetre(awg) * A <= 0.2501);
        return ok && gaugeFor(A / 2, cm, 5) >= awg;
      }),
    );
  });
  it("counts the way there and back: 1 A through 2 · 1 m of 20 AWG loses 67 mV", () => {
    // 17 lights at full: 17·60 = 1.02 A.
    const p = make(
      [
        BOARD5,
        USB,
        { ref: "S2", part: "supply/adapter-5v-10a" },
        { ...STRIP, options: { pixels: 17, brightness: 1, wire_awg: 20 }, wire_cm: 100 },
      ],
      [CABLE, ["M1.5V", "S2.5V"], ["M1.GND", "S2.GND"], ["S2.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
    );
    const w = wires(p).find((x) => x.to === "M1.5V")!;
    expect(w.peak_A).toBeCloseTo(1.02, 6);
    expect(w.drop_V).toBeCloseTo(2 * 0.0333 * 1.02, 3);
  });
  it("adds up along a daisy chain: the first wire carries both, the second its own", () => {
    const p = make(
      [BOARD5, USB, { ref: "M1", part: "module/hc-sr04" }, { ref: "M2", part: "module/hc-sr04" }],
      [CABLE, ["B1.5V", "M1.VCC"], ["M1.VCC", "M2.VCC"], ["M1.GND", "B1.GND"], ["M2.GND", "B1.GND"]],
    );
    const list = wires(p);
    expect(list.find((w) => w.to === "M1.VCC")!.peak_A).toBeCloseTo(0.04, 9);
    expect(list.find((w) => w.to === "M2.VCC")!.peak_A).toBeCloseTo(0.02, 9);
  });
  it("what flows out of a source's wires is what its limit counts", () => {
    const p = planned([
      BOARD3,
      { ref: "S1", part: "supply/aa-3" },
      { ref: "M1", part: "module/bme280" },
      { ref: "M2", part: "module/ssd1306-i2c" },
    ]);
    const c = circuitOf(p, catalogue);
    const out = supplyWires(c.netlist, c.power).filter((w) => w.from.startsWith("S1"));
    expect(out.reduce((s, w) => s + w.peak_A, 0)).toBeCloseTo(c.power.limits.find((l) => l.ref === "S1")!.flow.peak, 9);
  });
});

describe("heat", () => {
  it("1 W at 67 °C/W in a room of 40 °C is 107 °C inside", () => expect(junction(1, 67, 40)).toBe(107));
  it("9 V at most 9.45 V, down to at least 4.9 V, at the board's own 50 mA: 0.23 W", () => {
    const c = circuitOf(
      make(
        [BOARD5, { ref: "S1", part: "supply/adapter-9v-1a" }],
        [
          ["S1.9V", "B1.VIN"],
          ["S1.GND", "B1.GND"],
        ],
      ),
      catalogue,
    );
    const heat = c.power.stages.map((s) => stageHeat(c.netlist, s, 40)).find((h) => h && h.theta_C_per_W === 67)!;
    expect(heat.typ_W).toBeCloseTo(4.55 * 0.05, 4);
    expect(heat.junction_C).toBeCloseTo(40 + 4.55 * 0.05 * 67, 2);
    expect(heat.assumed).toBe(false);
  });
  it("a step-down stage loses what its efficiency leaves", () => {
    const c = circuitOf(make([BOARD3, USB], [CABLE]), catalogue);
    const s = c.power.stages.find((x) => x.converter.kind === "switching")!;
    expect(stageHeat(c.netlist, s, 40)!.typ_W).toBeCloseTo(3.4 * 0.03 * (1 / 0.85 - 1), 6);
  });
});

describe("batteries", () => {
  const cell: Battery = {
    ref: "S1",
    label: "Cells",
    chemistry: "alkaline",
    cells: 3,
    capacity_Ah: 2,
    rint_ohm: 0.6,
    sleeps: null,
    duty: 1,
    flow: { idle: 0, typ: 0.05, peak: 0.2 },
    cutoff_V: 3,
    cutoffBy: null,
    coldest_C: 10,
  };
  it("three fresh cells give 4.8 V, and 0.12 V less at 0.2 A through 0.6 Ω", () => {
    expect(batteryVolts(cell, 0, 0)).toBeCloseTo(4.8, 9);
    expect(batteryVolts(cell, 0, 0.2)).toBeCloseTo(4.68, 9);
  });
  it("2 Ah at 50 mA last at most 40 h · usable · 1.05, and less when worn", () => {
    const life = batteryLife(cell);
    expect(life.hours.max).toBeCloseTo((2 * life.usable * 1.05) / 0.05, 6);
    expect(life.hours.min).toBeLessThan(life.hours.max);
    // 3 V is 1.0 V a cell, reached between 90 and 97 % of the charge; the sag of 30 mV brings it forward a little.
    expect(life.usable).toBeGreaterThan(0.9);
    expect(life.usable).toBeLessThan(0.97);
  });
  it("at 0 °C an alkaline cell gives 70 % of its charge through twice the resistance; between 0 and −20 °C in a line", () => {
    expect(inCold("alkaline", 0)).toEqual({ share: 0.7, times: 2 });
    expect(inCold("alkaline", -10)).toEqual({ share: 0.5, times: 3 });
    expect(inCold("lithium", 20)).toEqual({ share: 1, times: 1 });
    expect(inCold("lithium", -60)).toEqual({ share: 0.5, times: 5 });
  });
  it("cold shortens the careful end of the estimate only", () => {
    const [warm, cold] = [batteryLife(cell), batteryLife({ ...cell, coldest_C: 0 })];
    expect(cold.hours.max).toBe(warm.hours.max);
    expect(cold.coldSag_V).toBeCloseTo(0.2 * 0.6 * 2, 9);
    // Worn (0.75), at 0 °C (0.7), and 3.0 V at 0.2 A through 1.2 Ω: 1.08 V a cell, half-way from 0.8 to 0.9 of the charge.
    expect(cold.hours.min).toBeCloseTo((2 * 0.85 * 0.75 * 0.7) / 0.05, 6);
  });
  it("awake a tenth of the time lasts ten times as long where idling takes nothing", () => {
    expect(batteryLife({ ...cell, duty: 0.1 }).hours.max / batteryLife(cell).hours.max).toBeCloseTo(10, 6);
  });
  it("the voltage only ever falls with use and with current", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (a, b, A) => {
          const [lo, hi] = [Math.min(a, b), Math.max(a, b)];
          return (
            batteryVolts(cell, lo, A) >= batteryVolts(cell, hi, A) - 1e-9 &&
            batteryVolts(cell, lo, A) <= batteryVolts(cell, lo, 0) + 1e-9
          );
        },
      ),
    );
  });
  it("in a project it ends where the chip's supply no longer reaches: 2.7 V at the bare chip", () => {
    const p = make(
      [
        { ref: "B1", part: "chip/atmega328p-dip28", companions: { decoupling: { F: 1e-7 } } },
        { ref: "S1", part: "supply/aa-3" },
      ],
      [
        ["S1.+", "B1.VCC"],
        ["S1.+", "B1.AVCC"],
        ["S1.-", "B1.GND"],
        ["S1.-", "B1.GND.2"],
      ],
    );
    const c = circuitOf(p, catalogue);
    const net = c.netlist.netOf("S1:main");
    expect(lowestNeeded(c.netlist, c.power, net.id)).toEqual({ V: 2.7, by: "B1" });
    // Empty cells (3.0 V) come first.
    expect(batteries(c.netlist, c.power, 10)[0]!.battery).toMatchObject({ cutoff_V: 3, cutoffBy: null });
  });
});

describe("I2C by UM10204", () => {
  it("3.3 V wants at least 967 Ω; 400 kHz over 100 pF at most 3.54 kΩ, 100 kHz over 400 pF at most 2.95 kΩ", () => {
    expect(pullUpWindow(3.3, 100e-12, 400_000).min_ohm).toBeCloseTo(966.7, 1);
    expect(pullUpWindow(3.3, 100e-12, 400_000).max_ohm).toBeCloseTo(3540.7, 0);
    expect(pullUpWindow(5, 400e-12, 100_000).max_ohm).toBeCloseTo(2950.5, 0);
  });
  it("rises from 0.3 V to 0.7 V in 0.8473·R·C", () => expect(i2cRise(1000, 1e-9)).toBeCloseTo(0.8473e-6, 10));
});

describe("serial rates by the data sheets' tables", () => {
  const off = (family: Parameters<typeof realBaud>[0], f: number, b: number) =>
    Number((realBaud(family, f, b).error * 100).toFixed(1));
  it.each([
    ["avr", 16e6, 9600, 0.2],
    ["avr", 16e6, 57_600, 2.1],
    ["avr", 16e6, 115_200, 2.1],
    ["avr", 8e6, 9600, 0.2],
    ["avr", 8e6, 115_200, -3.5],
    ["avr", 8e6, 38_400, 0.2],
    ["rp2040", 125e6, 115_200, 0],
    ["sam3x", 84e6, 115_200, -0.9],
    ["samd", 48e6, 115_200, 0],
  ] as const)("%s at %d Hz, %d baud: %d %%", (family, f, b, want) => expect(off(family, f, b)).toBeCloseTo(want, 5));
  it("RP2040 divides 125 MHz by 67 52/64 for 115200: 115207", () =>
    expect(realBaud("rp2040", 125e6, 115_200).real).toBeCloseTo(115_207.4, 0));
  it("no divider is further off than the next step would allow, up to 115200", () => {
    for (const [family, f] of [
      ["esp32", 240e6],
      ["esp8266", 80e6],
      ["stm32", 72e6],
      ["nrf52", 64e6],
      ["imxrt", 600e6],
      ["linux", 1e9],
    ] as const)
      for (const b of [9600, 19_200, 57_600, 115_200])
        expect(Math.abs(off(family, f, b)), `${family} ${b}`).toBeLessThan(0.6);
  });
});

describe("junctions at small currents", () => {
  it("0.7 V at 10 mA is 0.46 V at 0.1 mA: two decades of 0.12 V", () =>
    expect(dropAt({ min: 0.6, typ: 0.7, max: 1 }, 1e-4).typ).toBeCloseTo(0.46, 9));
});

describe("supply advice", () => {
  const p = {
    ...planned([BOARD5, USB, { ...STRIP, options: { pixels: 30, brightness: 1 } }]),
    drawer: { parts: { "supply/adapter-5v-10a": 1 }, resistors_ohm: [], capacitors_F: [] },
  };
  const c = circuitOf(p, catalogue);
  const list = adviseSupplies(c.netlist, c.power, catalogue, "S1:source");
  it("puts what is owned and fits first, and says why others do not", () => {
    // 30·60 + 60 mA = 1.86 A.
    expect(list[0]).toMatchObject({ part: "supply/adapter-5v-10a", fits: true, owned: 1 });
    expect(list.find((x) => x.part === "supply/adapter-5v-2a")).toMatchObject({ fits: false });
    expect(list.find((x) => x.part === "supply/usb-port")!.why).toContain("3.7 times");
  });
  it("offers nothing of another voltage", () => expect(list.every((x) => Math.abs(x.V.typ - 5) <= 0.5)).toBe(true));
});

describe("options that change what is drawn", () => {
  const peak = (options: object, source: object = USB) => {
    const c = circuitOf(
      planned([BOARD5, source, { ...STRIP, options: { pixels: 10, brightness: 1, ...options } }]),
      catalogue,
    );
    return c.power.limits.find((l) => l.kind === "source")!;
  };
  it("a strip that shows one colour takes a third: 10·21 instead of 10·60 mA, beside the board's 60", () => {
    expect(peak({}).flow.peak).toBeCloseTo(0.66, 9);
    expect(peak({ colour: "one" }).flow.peak).toBeCloseTo(0.27, 9);
    expect(peak({ colour: "two" }).flow.peak).toBeCloseTo(0.47, 9);
  });
  it("a small host's port gives less than a computer's", () => {
    expect(peak({}, { ...USB, options: { limit_mA: 100 } }).limit_A).toBeCloseTo(0.1, 9);
    expect(peak({}).limit_A).toBeCloseTo(0.5, 9);
  });
});
