import { execFileSync } from "node:child_process";
import { describe, expect, it } from "vitest";
import { shippedCatalogue } from "../src/core/catalogue/shipped";
import { CORE } from "./avr/toolchain";

const board = shippedCatalogue().get("board/atmega328p-long")!;

/** What the packaged core's own tables say about each pin, read out of the preprocessed headers at test time. */
function coreTables() {
  const program = `
#include <Arduino.h>
#define SHOW(n) PIN n digital_pin_to_port_PGM[n] digital_pin_to_bit_mask_PGM[n] digital_pin_to_timer_PGM[n]
NAMES led LED_BUILTIN sda PIN_WIRE_SDA scl PIN_WIRE_SCL ss PIN_SPI_SS mosi PIN_SPI_MOSI miso PIN_SPI_MISO sck PIN_SPI_SCK a0 PIN_A0
`;
  const text = execFileSync(
    "avr-g++",
    [
      "-E",
      "-P",
      "-x",
      "c++",
      "-mmcu=atmega328p",
      "-DF_CPU=16000000L",
      "-DARDUINO_MAIN",
      "-I",
      `${CORE}/cores/arduino`,
      "-I",
      `${CORE}/variants/standard`,
      "-",
    ],
    { input: program, encoding: "utf8" },
  );
  const list = (name: string) => {
    const body = new RegExp(`${name}\\[\\][^=]*=\\s*\\{([^}]*)\\}`).exec(text)![1]!;
    return body
      .split(",")
      .map((x) => x.trim())
      .filter(Boolean);
  };
  const constants = new Map(
    [...text.matchAll(/static const uint8_t (\w+) = \(?(\d+)\)?;/g)].map((m) => [m[1]!, Number(m[2])]),
  );
  return {
    port: list("digital_pin_to_port_PGM"),
    mask: list("digital_pin_to_bit_mask_PGM"),
    timer: list("digital_pin_to_timer_PGM"),
    constants,
  };
}

/** TIMER numbers of the core's header by name. */
function timerNames(): Map<string, string> {
  const text = execFileSync(
    "avr-gcc",
    [
      "-E",
      "-dM",
      "-x",
      "c",
      "-mmcu=atmega328p",
      "-DF_CPU=16000000L",
      "-I",
      `${CORE}/cores/arduino`,
      "-I",
      `${CORE}/variants/standard`,
      "-",
    ],
    {
      input: "#include <Arduino.h>\n",
      encoding: "utf8",
    },
  );
  return new Map([...text.matchAll(/#define TIMER(\d)(A|B) (\d+)/g)].map((m) => [m[3]!, `timer${m[1]} ${m[2]}`]));
}

describe("board/atmega328p-long equals the packaged core's pin tables", () => {
  const core = coreTables();
  const timers = timerNames();
  const letter = (port: string) => ({ "2": "PB", "3": "PC", "4": "PD" })[port] ?? port;
  const bit = (mask: string) => /<<\s*\(?(\d)/.exec(mask)![1]!;
  const slots = board.pins.filter((p) => p.gpio !== undefined);

  it("has all twenty pins", () => {
    expect(slots.map((p) => p.gpio).sort((a, b) => a! - b!)).toEqual([...Array(20).keys()]);
    expect(core.port).toHaveLength(20);
  });

  it.each(slots.map((p) => [p.label, p] as const))("%s", (_label, p) => {
    const n = p.gpio!;
    expect(p.names!["avr-c"]).toBe(`${letter(core.port[n]!)}${bit(core.mask[n]!)}`);
    const pwm = p.offers!.find((o) => o.kind === "pwm");
    expect(pwm ? `${pwm.timer} ${pwm.channel}` : undefined).toBe(timers.get(core.timer[n]!));
    const adc = p.offers!.find((o) => o.kind === "adc");
    expect(adc?.channel).toBe(n >= 14 ? n - 14 : undefined);
  });

  it("puts the buses and the light where the core does", () => {
    const at = (kind: string, role: string) =>
      slots.find((p) => p.offers!.some((o) => o.kind === kind && "role" in o && o.role === role))!.gpio;
    const c = core.constants;
    expect(at("i2c", "sda")).toBe(c.get("SDA"));
    expect(at("i2c", "scl")).toBe(c.get("SCL"));
    expect(at("spi", "cs")).toBe(c.get("SS"));
    expect(at("spi", "mosi")).toBe(c.get("MOSI"));
    expect(at("spi", "miso")).toBe(c.get("MISO"));
    expect(at("spi", "sck")).toBe(c.get("SCK"));
    expect(slots.find((p) => p.hazards?.some((h) => h.kind === "onboard"))!.gpio).toBe(13);
  });
});
