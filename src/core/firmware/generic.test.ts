import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import { BOARD3, BOARD5, catalogue, planned, USB } from "../testing";
import { targetById } from ".";

const files = (part: object, target: "sketch" | "micropython", board: object = BOARD5) => {
  const c = circuitOf(planned([board, USB, { ref: "M1", label: "Thing", ...part }]), catalogue);
  return Object.fromEntries(
    targetById(target)!
      .files(c)
      .map((f) => [f.path, f.text]),
  );
};

describe("a bus that the program times", () => {
  const at = (board: string, target: string, clock_Hz?: number) => {
    const p = planned([{ ref: "B1", part: board }, USB, { ref: "M1", label: "Thing", part: "module/ds3231" }]);
    const buses = clock_Hz ? [{ host: "B1", bus: "usi0", clock_Hz }] : [];
    const list = targetById(target)!.files(circuitOf({ ...p, buses }, catalogue));
    return list.find((f) => f.path === "parts.h")!.text;
  };
  it("runs at the clock that was chosen for it, and at the usual one else", () => {
    expect(at("chip/attiny85-dip8", "avr-c")).toMatch(/BusPins thing_bus = \{at\(.*\), at\(.*\), 5\};/);
    expect(at("chip/attiny85-dip8", "avr-c", 20_000)).toMatch(/BusPins thing_bus = \{at\(.*\), at\(.*\), 25\};/);
    // No faster than its words allow.
    expect(at("chip/attiny85-dip8", "avr-c", 400_000)).toMatch(/, 5\};/);
  });
});

describe("parts without a driver of their own", () => {
  it("I2C parts are called by address and asked who they are", () => {
    const ino = files({ part: "module/mpu6050" }, "sketch")["bringup/bringup.ino"]!;
    expect(ino).toContain("Wire.beginTransmission(0x68)");
    expect(ino).toContain("Wire.write(0x75)");
    expect(ino).toContain("verdict(there && id == 0x68)");
    expect(ino).toContain("#include <Wire.h>");
    const py = files({ part: "module/mpu6050" }, "micropython", BOARD3)["bringup.py"]!;
    expect(py).toContain("i2c0.readfrom_mem(0x68, 0x75, 1)");
    expect(py).toContain("from machine import I2C, Pin");
  });
  it("outputs go to rest before they become outputs, and are left there", () => {
    const relay = files({ part: "module/relay-1" }, "sketch")["bringup/bringup.ino"]!;
    // Low-triggered: high is off, and it is high before the pin drives.
    expect(relay).toMatch(/digitalWrite\(PIN_THING, HIGH\);\n\s*pinMode\(PIN_THING, OUTPUT\);/);
    expect(relay).not.toMatch(/digitalWrite\(PIN_THING, LOW\)/);
    const high = files({ part: "module/relay-1", options: { trigger: "high" } }, "sketch")["bringup/bringup.ino"]!;
    expect(high).toMatch(/digitalWrite\(PIN_THING, LOW\);\n\s*pinMode/);
    expect(files({ part: "module/mcp3008" }, "sketch")["starter/starter.ino"]).toMatch(
      /digitalWrite\(PIN_THING_CS, HIGH\)/,
    );
  });
  it("inputs use the chip's pull-up where the plan relies on it, and only there", () => {
    const knob = files({ part: "module/encoder" }, "sketch")["starter/starter.ino"]!;
    expect(knob).toContain("pinMode(PIN_THING_SW, INPUT_PULLUP)");
    expect(knob).toContain("pinMode(PIN_THING_CLK, INPUT)");
    const pad = files({ part: "module/keypad-4x4" }, "micropython", BOARD3)["main.py"]!;
    expect(pad.match(/Pin\.PULL_UP/g)).toHaveLength(4);
  });
  it("analogue values are measured", () => {
    expect(files({ part: "discrete/ldr" }, "sketch")["bringup/bringup.ino"]).toContain("analogRead(PIN_THING)");
    expect(files({ part: "discrete/ldr" }, "micropython", BOARD3)["main.py"]).toContain("from machine import ADC");
  });
  it("a name that is no name does not break the code", () => {
    const ino = files({ part: "module/pir", label: '"); rm -rf / ; //' }, "sketch")["bringup/bringup.ino"]!;
    expect(ino).not.toContain('rm -rf / ; //"');
    expect(ino).toContain("PIN_RM_RF");
  });
});
