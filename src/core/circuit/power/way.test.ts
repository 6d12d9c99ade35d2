import { describe, expect, it } from "vitest";
import { circuitOf } from "..";
import { BOARD3, BOARD5, CABLE, catalogue, make, USB } from "../../testing";
import { awgOhmPerMetre, CABLE_OHM, supplyWays } from ".";

const waysOf = (parts: object[], links: [string, string][]) => {
  const c = circuitOf(make(parts, links), catalogue);
  return {
    c,
    way: (ref: string, supply = "main") =>
      supplyWays(c.netlist, c.power).find((w) => w.ref === ref && w.supply === supply)!,
  };
};

describe("volts along the way", () => {
  it("a wire takes 2·L·R·I at the usual and at the peak current, from the usual and the lowest source", () => {
    const { c, way } = waysOf(
      [
        BOARD5,
        USB,
        { ref: "S2", part: "supply/adapter-5v-10a" },
        { ref: "M1", part: "module/servo-small", wire_cm: 150, options: { wire_awg: 24 } },
      ],
      [CABLE, ["S2.GND", "B1.GND"], ["M1.VCC", "S2.5V"], ["M1.GND", "S2.GND"], ["M1.SIG", "B1.D9"]],
    );
    const flow = c.power.own.get(c.netlist.netOf("M1.VCC").id)!.find((x) => x.ref === "M1")!.flow;
    const ohm = 2 * 1.5 * awgOhmPerMetre(24);
    const w = way("M1");
    expect(w.V.typ).toBeCloseTo(5 - ohm * flow.typ, 9);
    expect(w.V.loaded).toBeCloseTo(5 - ohm * flow.peak, 9);
    expect(w.V.worst).toBeCloseTo(4.75 - ohm * flow.peak, 9);
    expect(w.steps.map((s) => s.kind)).toEqual(["source", "wire"]);
  });
  it("a USB cable, then the board's own diode and regulator: the cable's loss reaches the 5 V rail, not the regulated one", () => {
    const { c, way } = waysOf(
      [BOARD3, USB, { ref: "M2", part: "module/ssd1306-i2c" }, { ref: "M1", part: "module/hc-sr04" }],
      [CABLE, ["M2.VCC", "B1.3V3"], ["M2.GND", "B1.GND"], ["M1.VCC", "B1.VBUS"], ["M1.GND", "B1.GND"]],
    );
    const port = c.power.limits.find((l) => l.kind === "source")!.flow;
    expect(way("M1").steps.map((s) => s.kind)).toEqual(["source", "cable", "wire"]);
    expect(way("M1").steps[1]!.V.worst).toBeCloseTo(4.75 - CABLE_OHM.max * port.peak, 9);
    const display = way("M2");
    expect(display.steps.at(-2)!.kind).toBe("converter");
    expect(display.V.typ).toBeGreaterThan(3.28);
    expect(display.V.typ).toBeLessThan(3.3);
  });
  it("cells keep I·R inside, more in the cold, and a regulator in drop-out hands it on", () => {
    const inside = (place: string) => {
      const parts = [BOARD3, { ref: "S1", part: "supply/lipo-1s" }];
      const links: [string, string][] = [
        ["S1.+", "B1.VSYS"],
        ["S1.-", "B1.GND"],
      ];
      const c = circuitOf(make(parts, links, { brief: { place } }), catalogue);
      const way = supplyWays(c.netlist, c.power)[0]!;
      const flow = c.power.limits.find((l) => l.kind === "source")!.flow;
      return { drop: way.steps.find((s) => s.kind === "inside")!.drop, flow };
    };
    const [room, sun] = [inside("room"), inside("sun")];
    // 0.15 Ω in a room; −15 °C makes a lithium cell's inside 4.25 times as large (2 at 0 °C, 5 at −20 °C).
    expect(room.drop.typ).toBeCloseTo(0.15 * room.flow.typ, 9);
    expect(room.drop.worst).toBeCloseTo(0.15 * room.flow.peak, 9);
    expect(sun.drop.worst / room.drop.worst).toBeCloseTo(4.25, 6);
  });
  it("a part that nothing feeds has no way", () => {
    const { way } = waysOf([BOARD5, { ref: "M1", part: "module/hc-sr04" }], [["M1.GND", "B1.GND"]]);
    expect(way("M1")).toBeUndefined();
  });
});
