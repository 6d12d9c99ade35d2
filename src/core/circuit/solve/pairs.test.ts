import { describe, expect, it } from "vitest";
import { BOARD3, BOARD5, CABLE, catalogue, make, USB } from "../../testing";
import { circuitOf } from "..";

const pairs = (parts: object[], links: [string, string][]) => circuitOf(make(parts, links), catalogue).levels;
const pair = (parts: object[], links: [string, string][], driver: string, receiver: string) =>
  pairs(parts, links).find(
    (v) => `${v.driver.ref}.${v.driver.pin}` === driver && `${v.receiver.ref}.${v.receiver.pin}` === receiver,
  );
const R = (ref: string, resistance_ohm: number) => ({ ref, part: "discrete/resistor", options: { resistance_ohm } });
const ECHO = { ref: "M1", part: "module/hc-sr04" };
const fed: [string, string][] = [CABLE, ["M1.VCC", "B1.VBUS"], ["M1.GND", "B1.GND"]];

describe("a driver against a receiver, from the solved circuit", () => {
  it("divides at the worst resistors and the highest supply: 5.25 V over 10.5k and 19k is 3.38 V", () => {
    const v = pair(
      [BOARD3, USB, ECHO, R("R1", 10_000), R("R2", 20_000)],
      [...fed, ["M1.ECHO", "R1.1"], ["R1.2", "B1.GP2"], ["R2.1", "B1.GP2"], ["R2.2", "B1.GND"]],
      "M1.ECHO",
      "B1.GP2",
    )!;
    // 5 % resistors: the highest is the upper one small and the lower one large.
    expect(v.highest_V).toBeCloseTo((5.25 * 21_000) / (21_000 + 9500), 2);
    expect(v.highest_V).toBeLessThan(v.ceiling + 0.4);
    expect(v.driver.how).toBe("push-pull");
  });

  it("lets rails of one source move together, and rails of two not", () => {
    const shared = pair(
      [BOARD5, USB, ECHO],
      [CABLE, ["M1.VCC", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.ECHO", "B1.D2"]],
      "M1.ECHO",
      "B1.D2",
    )!;
    expect(shared.highest_V).toBeLessThan(shared.ceiling);
    expect(shared.ceiling - shared.highest_V).toBeLessThan(0.6);
  });

  it("reads a contact whose way to ground is too long: 4.7k below a 10k pull-up is no low", () => {
    const key = (ohm: number) =>
      pairs(
        [BOARD5, USB, { ref: "SW1", part: "discrete/button" }, R("R1", 10_000), R("R2", ohm)],
        [CABLE, ["SW1.1", "B1.D2"], ["R1.1", "B1.D2"], ["R1.2", "B1.5V"], ["SW1.2", "R2.1"], ["R2.2", "B1.GND"]],
      ).find((v) => v.receiver.pin === "D2");
    // 5 V · 4.7 / 14.7 is 1.6 V, above 0.3 of the supply; 1 kΩ leaves 0.45 V.
    expect(key(4700)!.low_V).toBeGreaterThan(1.59);
    expect(key(4700)!.usualLow).toBeLessThan(0);
    expect(key(1000)).toBeUndefined();
  });

  it("follows a low through a diode at the small current of the pull-up", () => {
    const v = pair(
      [
        BOARD5,
        USB,
        { ref: "M1", part: "module/hc-sr04" },
        { ref: "DIO1", part: "discrete/diode-1n4148" },
        R("R1", 47_000),
      ],
      [
        CABLE,
        ["M1.VCC", "B1.5V"],
        ["M1.GND", "B1.GND"],
        ["DIO1.K", "M1.ECHO"],
        ["DIO1.A", "B1.D2"],
        ["R1.1", "B1.D2"],
        ["R1.2", "B1.5V"],
      ],
      "M1.ECHO",
      "B1.D2",
    )!;
    expect(v.driver.how).toBe("diode");
    // 0.1 mA is two tenths of a decade of ten below the rated current: 0.7 V less 0.24 V, and what the output keeps.
    expect(v.low_V).toBeGreaterThan(0.4);
    expect(v.low_V).toBeLessThan(0.85);
  });

  it("carries a line both ways through a MOSFET whose gate is at the lower supply", () => {
    const list = pairs(
      [
        BOARD3,
        USB,
        { ref: "M1", part: "module/lcd1602-i2c" },
        { ref: "Q1", part: "discrete/nmos-ao3400" },
        R("R1", 10_000),
        R("R2", 10_000),
      ],
      [
        CABLE,
        ["M1.VCC", "B1.VBUS"],
        ["M1.GND", "B1.GND"],
        ["Q1.G", "B1.3V3"],
        ["Q1.S", "B1.GP4"],
        ["Q1.D", "M1.SDA"],
        ["R1.1", "B1.GP4"],
        ["R1.2", "B1.3V3"],
        ["R2.1", "M1.SDA"],
        ["R2.2", "B1.VBUS"],
      ],
    );
    const down = list.find((v) => v.driver.ref === "B1" && v.receiver.ref === "M1");
    const up = list.find((v) => v.driver.ref === "M1" && v.receiver.ref === "B1");
    for (const v of [down, up]) expect(v).toBeDefined();
    expect(down!.high_V).toBeGreaterThan(4.3);
    expect(up!.highest_V).toBeLessThan(up!.ceiling);
    for (const v of [down!, up!]) expect(v.marginLow).toBeGreaterThan(0.2);
  });
});
