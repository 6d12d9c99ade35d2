import { describe, expect, it } from "vitest";
import { findPin } from "../src/core/parts/catalogue";
import { circuitOf } from "../src/core/circuit";
import { sketch } from "../src/core/firmware/targets/sketch";
import { runOnHost as run } from "./host/compile";
import { BOARD3, catalogue, planned, USB } from "../src/core/testing";

describe("sketches for the RP2040 board, compiled for this machine", () => {
  const c = circuitOf(
    planned([
      BOARD3,
      USB,
      { ref: "S2", part: "supply/adapter-5v-2a" },
      { ref: "M1", part: "module/bme280", label: "Air" },
      { ref: "M2", part: "module/ssd1306-i2c", label: "Display" },
      { ref: "M5", part: "module/ssd1306-i2c", label: "Second" },
      { ref: "M3", part: "module/ws2812b-strip", label: "Light", options: { pixels: 4 } },
      { ref: "M4", part: "module/hc-sr04", label: "Echo" },
      { ref: "SW1", part: "discrete/button", label: "Button" },
      { ref: "D1", part: "discrete/led-red", label: "Lamp" },
    ]),
    catalogue,
  );
  const files = sketch.files(c);
  const gpio = (ref: string, pin: string) => {
    const b = c.netlist.bindings.find((x) => x.ref === ref && x.pin === pin)!;
    return findPin(c.netlist.instance(b.host)!.part, b.hostPin)!.gpio!;
  };

  it("bring-up uses the planned pins and both buses, and reports", () => {
    const lines = run(files, "bringup", 1);
    expect(lines).toContain(`WRITE ${gpio("D1", "A")} 1`);
    expect(lines).toContain(`MODE ${gpio("SW1", "1")} 2`);
    expect(lines).toContain(`MODE ${gpio("M4", "TRIG")} 1`);
    expect(lines).toContain(`STRIP ${gpio("M3", "DIN")} 1`);
    expect(lines).toContain("BEGIN Wire");
    expect(lines).toContain("BEGIN Wire1");
    const second = [gpio("M2", "SDA"), gpio("M5", "SDA")].find((g) => (g >> 1) & 1);
    expect(lines).toContain(`SDA Wire1 ${second}`);
    // The air by its identity; nothing answers the pulse here; the rest is for a person to see or to press.
    expect(lines.filter((l) => l.startsWith("YL1")).at(-1)).toBe("YL1 done parts=7 proven=1 failed=1 unproven=5 fail");
    expect(lines).toContain("YL1 ask SW1 press it info");
  });

  it("the starter's tasks run in turn", () => {
    const lines = run(files, "starter", 3000);
    const lamp = lines.filter((l) => l.startsWith(`WRITE ${gpio("D1", "A")} `));
    expect(lamp.length).toBeGreaterThan(3);
    expect(lamp[0]).not.toBe(lamp[1]);
  });
});
