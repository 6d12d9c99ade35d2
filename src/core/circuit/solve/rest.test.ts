import { describe, expect, it } from "vitest";
import { BOARD5, CABLE, catalogue, make, USB } from "../../testing";
import { findings } from "../../checks";
import { circuitOf } from "..";
import { driveOf, restOf } from ".";

const R = (ref: string, resistance_ohm: number) => ({ ref, part: "discrete/resistor", options: { resistance_ohm } });
const built = (parts: object[], links: [string, string][]) =>
  circuitOf(make([BOARD5, USB, ...parts], [CABLE, ...links]), catalogue);
const rest = (parts: object[], links: [string, string][], end = "B1.D2") => {
  const c = built(parts, links);
  return restOf(c.solved, c.netlist.netOf(end).id);
};

describe("a net while no pin drives it", () => {
  it("stands at its pull, behind a resistor in the way as well", () => {
    const r = rest(
      [R("R1", 10_000), R("R2", 470)],
      [
        ["R1.1", "B1.5V"],
        ["R1.2", "R2.1"],
        ["R2.2", "B1.D2"],
      ],
    )!;
    expect(r).toMatchObject({ side: "high", way: { end: { kind: "rail" } } });
    expect(r.ohm).toBeCloseTo(10_470, 0);
  });
  it("stands between two pulls of one size, and looks back into both at once", () => {
    const r = rest(
      [R("R1", 10_000), R("R2", 10_000)],
      [
        ["R1.1", "B1.5V"],
        ["R1.2", "B1.D2"],
        ["R2.1", "B1.D2"],
        ["R2.2", "B1.GND"],
      ],
    )!;
    expect(r.side).toBe("between");
    expect(r.ohm).toBeCloseTo(5000, 0);
  });
  it("is held by nothing where only a light hangs on it", () => {
    const light = { ref: "D1", part: "discrete/led-red", companions: { seriesResistor: { ohm: 470 } } };
    expect(
      rest(
        [light],
        [
          ["D1.A", "B1.D2"],
          ["D1.K", "B1.GND"],
        ],
      ),
    ).toBeNull();
  });
  it("follows a contact that rests closed", () => {
    const r = rest(
      [{ ref: "K1", part: "module/relay-1" }],
      [
        ["K1.COM", "B1.D2"],
        ["K1.NC", "B1.GND"],
      ],
    );
    expect(r).toMatchObject({ side: "low" });
  });
});

describe("a transistor as the circuit works it", () => {
  it("shares the base current with a resistor to ground", () => {
    const buzzer = {
      ref: "MT1",
      part: "discrete/motor-dc",
      companions: { driver: { part: "discrete/npn-2n2222", ohm: [1000, 10_000] } },
    };
    const c = built(
      [buzzer],
      [
        ["MT1.1", "B1.D9"],
        ["MT1.2", "B1.5V"],
      ],
    );
    const q = c.netlist.elements.find((e) => e.kind === "bjt");
    const d = q && driveOf(c.solved, q);
    expect(d?.driver.key).toBe("B1.D9");
    // (4.5 − 0.95) / 1050 Ω at least less 0.1 mA; at most (5.25 − 0.6) / 950 Ω.
    expect(d!.base_A.min).toBeGreaterThan(2.8e-3);
    expect(d!.base_A.max).toBeLessThan(5e-3);
    expect(findings(c).some((f) => f.rule === "load.base-drive")).toBe(d!.base_A.min < 0.2 / 20);
  });
});
