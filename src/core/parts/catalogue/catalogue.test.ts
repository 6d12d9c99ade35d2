import { describe, expect, it } from "vitest";
import { evaluate } from "../../quantity";
import { catalogue } from "../../testing";
import fs from "node:fs";
import { DRIVERS } from "../../firmware/drivers";
import { findPin, optionProblems, partJsonSchema, readPart, validatePart, withOptions, type Part } from ".";

const part = (id: string) => catalogue.get(id)!;

/** The ids that projects may rely on. More are welcome; none of these may go. */
const IDS: Record<string, string> = {
  board:
    "atmega328p-long atmega328p-compact atmega32u4-compact atmega32u4-long atmega2560-long sam3x-long samd21-compact rp2040-forty rp2040-mini rp2350-forty esp32-thirtyeight esp32-s3-fortyfour esp32-c3-mini esp8266-mini stm32f103-forty stm32f411-forty nrf52840-compact imxrt1062-compact mkl26z64-compact linux-forty " +
    "esp32-thirty esp8266-thirty rp2040-forty-radio rp2350-forty-radio atmega328p-mini-5v atmega328p-mini-3v3 rp2040-thumb esp32-c3-thumb esp32-s3-thumb",
  chip: "atmega328p-dip28 atmega32a-dip40 attiny85-dip8 attiny84-dip14 attiny13a-dip8",
  module:
    "bme280 bmp280 sht31 aht20 bh1750 veml7700 apds9960 vl53l0x mpu6050 lsm6ds3 adxl345 qmc5883l ina219 ads1115 mcp4725 mlx90614 ccs811 sgp40 scd41 max30102 as5600 ds3231 ds1307 pcf8563 at24c32 pca9685 mcp23017 pcf8574 tca9548a ssd1306-i2c lcd1602-i2c ht16k33-digits " +
    "ssd1306-spi st7735 st7789 ili9341 max7219-digits max7219-matrix sd-3v3 sd-shifted mcp3008 mcp4921 mcp2515 nrf24l01 rfm95 rc522 w5500 max6675 max31855 gps-neo6m hc05 mp3-player pms5003 mhz19b max3485 usb-uart-3v3 usb-uart-5v " +
    "ds18b20 dht22 hx711 hc-sr04 ultrasonic-3v3 pir ir-receiver-38k tcrt5000 a3144 encoder keypad-4x4 button-module joystick soil-capacitive soil-resistive ldr-module max9814 mq2 acs712 " +
    "relay-1 relay-2 mosfet-switch l298n drv8833 tb6612 uln2003-stepper a4988 servo-small servo-large buzzer-active buzzer-passive ws2812b-strip ws2812b-matrix-8x8 ws2812b-ring-16 apa102-strip lcd1602-parallel vfd-20x2-parallel shifter-bss138-4 buffer-74ahct125 74hc595 74hc165 cd4067 isolator-2ch optocoupler-pc817 buck-adjustable boost-adjustable ldo-3v3 charger-1s avr-programmer " +
    "dht11 sht40 ir-obstacle flame sound-threshold rain vibration slot-barrier ttp223 tilt microwave-motion mq3 mq7 mq135 max4466 water-level lcd2004-i2c ultrasonic-waterproof relay-4 relay-8",
  discrete:
    "led-red led-green led-yellow led-blue led-white led-ir led-rgb-cc resistor capacitor electrolytic diode-1n4007 diode-1n5819 npn-2n2222 npn-bc547 nmos-irlz44n nmos-ao3400 button toggle limit-switch footswitch reed potentiometer ldr thermistor-10k digit-7seg-cc digit-7seg-ca motor-dc pump-5v solenoid relay-coil-12v gauge-12v speaker led-rgb-ca fsr flex float-switch slide-switch nmos-2n7000 npn-tip120",
  supply:
    "usb-port usb-charger adapter-5v-2a adapter-5v-10a adapter-9v-1a adapter-12v-2a battery-9v aa-2 aa-3 aa-4 coin-cell li-ion-1s li-ion-2s lipo-1s power-bank bench",
  connector: "din5 din6 de9 screw-2 screw-3 jst-2 barrel header-1 header-12 header-40",
};

describe("the ids that projects rely on", () => {
  it.each(Object.entries(IDS).flatMap(([kind, list]) => list.split(" ").map((x) => `${kind}/${x}`)))("%s", (id) => {
    expect(catalogue.get(id)?.id).toBe(id);
  });
});

/** Every version of a part that one choice makes. */
const versions = (p: Part): [string, Part][] => [
  ["usual", withOptions(p, {})],
  ...p.options.flatMap((o) =>
    o.kind === "choice"
      ? o.choices.map((c): [string, Part] => [`${o.key}=${c.value}`, withOptions(p, { [o.key]: c.value })])
      : [],
  ),
];
const varsOf = (p: Part, at: "default" | "min" | "max" = "default") =>
  Object.fromEntries(p.options.flatMap((o) => (o.kind === "number" ? [[o.key, o[at]]] : [])));

describe("every shipped part, in every version", () => {
  it.each(catalogue.parts.map((p) => [p.id, p] as const))("%s is sound", (_id, part) => {
    expect(part.sources.length).toBeGreaterThan(0);
    if (part.certainty !== "high") expect(part.notes.join("").length, "say why it is not certain").toBeGreaterThan(20);
    for (const [name, p] of versions(part)) {
      expect(validatePart(p), name).toMatchObject({ ok: true });
      for (const vars of [varsOf(p), varsOf(p, "min"), varsOf(p, "max")])
        for (const [key, s] of Object.entries(p.supplies)) {
          const where = `${name} ${key}`;
          const [min, typ, max] = [s.V.min, s.V.typ, s.V.max].map((x) => evaluate(x, vars)) as [number, number, number];
          expect(min, where).toBeGreaterThan(0);
          expect(min, where).toBeLessThanOrEqual(typ);
          expect(typ, where).toBeLessThanOrEqual(max);
          expect(max, where).toBeLessThanOrEqual(60);
          if (!s.mA) continue;
          const mA = [s.mA.idle, s.mA.typ, s.mA.peak].map((x) => evaluate(x, vars)) as [number, number, number];
          expect(mA[0], where).toBeGreaterThanOrEqual(0);
          expect(mA[0], where).toBeLessThanOrEqual(mA[1]);
          expect(mA[1], where).toBeLessThanOrEqual(mA[2]);
        }
      const vars = varsOf(p);
      for (const [key, l] of Object.entries(p.levels)) {
        const supply = p.supplies[l.supply]!.V;
        for (const V of [supply.min, supply.typ, supply.max].map((x) => evaluate(x, vars))) {
          const at = { ...vars, V, I: 0 };
          const where = `${name} ${key} at ${V} V`;
          expect(evaluate(l.absMax, at), where).toBeGreaterThan(0);
          if (l.VOH !== undefined && l.VOL !== undefined && V >= evaluate(supply.typ, vars))
            expect(evaluate(l.VOH, at), where).toBeGreaterThan(evaluate(l.VOL, at));
          if (l.VIH === undefined || l.VIL === undefined) continue;
          expect(evaluate(l.VIL, at), where).toBeLessThan(evaluate(l.VIH, at));
          // At its usual supply a part must be able to hear a full-swing signal.
          if (V === evaluate(supply.typ, vars) && l.input !== "none")
            expect(evaluate(l.VIH, at), where).toBeLessThanOrEqual(Math.max(V, 10));
        }
        if (l.pin_mA?.absMax !== undefined)
          expect(l.pin_mA.recommended, `${name} ${key}`).toBeLessThanOrEqual(l.pin_mA.absMax);
      }
      for (const pin of p.pins) {
        const where = `${name} ${pin.label}`;
        if (pin.role === "signal" && pin.need) expect(pin.level && p.levels[pin.level], where).toBeTruthy();
        // A board input served by a part's output, and the other way round.
        if (pin.need?.kind === "digital-out") expect(["in", undefined], where).toContain(pin.io);
        if (pin.need?.kind === "adc") expect(["analog-out", "bidir", undefined], where).toContain(pin.io);
        if (pin.need?.kind === "digital-in") expect(["out", "open-drain", undefined], where).toContain(pin.io);
        if (!p.board && pin.role === "signal" && pin.io === "in" && pin.mustNotFloat)
          expect(Boolean(pin.need || pin.hook), `${where} must not float and nothing holds it`).toBe(true);
      }
      for (const g of p.groups) {
        if (g.kind === "i2c") {
          expect(Object.keys(g.pins).sort(), name).toEqual(["scl", "sda"]);
          // 7-bit addresses outside the reserved ends.
          for (const a of [g.address, ...(g.also ?? [])])
            if (a) expect(parseInt(a), `${name} ${a}`).toBeGreaterThanOrEqual(0x08);
          for (const a of [g.address, ...(g.also ?? [])])
            if (a) expect(parseInt(a), `${name} ${a}`).toBeLessThanOrEqual(0x77);
        }
        if (g.kind === "i2c" || g.kind === "spi" || g.kind === "uart")
          for (const [role, label] of Object.entries(g.pins)) {
            const need = p.pins.find((x) => x.label === label)!.need;
            if (need && need.kind === g.kind) expect(need.role, `${name} ${label}`).toBe(role);
          }
      }
      // Everything that draws current has a way back.
      const draws = p.pins.some((x) => x.role === "supply-in");
      if (draws)
        expect(
          p.pins.some((x) => x.role === "ground"),
          name,
        ).toBe(true);
    }
    for (const c of part.companions) expect(catalogue.get(c.part), c.part).toBeDefined();
    if (part.bringup) expect(DRIVERS.map((d) => d.id)).toContain(part.bringup.driver);
    for (const o of part.options) if (o.kind === "choice") expect(o.choices.map((c) => c.value)).toContain(o.default);
    // What it is called must not collide with what another pin is called.
    const names = part.pins.flatMap((p) => [p.label, ...(p.aliases ?? [])]);
    expect(new Set(names).size).toBe(names.length);
  });
  it("says the usual voltage of a source inside its own range, and orders converters by what they can make", () => {
    for (const p of catalogue.parts)
      for (const c of p.converters) {
        expect(p.supplies[c.from], `${p.id} ${c.from}`).toBeDefined();
        if (c.kind === "linear" || c.kind === "switching")
          expect(c.V, `${p.id} makes an unknown voltage`).toBeDefined();
        if (c.V)
          expect(evaluate(c.V.typ, varsOf(p))).toBeLessThanOrEqual(evaluate(p.supplies[c.to]!.V.max, varsOf(p)) + 1e-9);
      }
  });
  it("boards have two or more ways in for power or USB, places for every header pin, and upload steps", () => {
    for (const p of catalogue.parts.filter((x) => x.board)) {
      const at = p.pins.filter((x) => x.at).map((x) => `${x.at!.header}${x.at!.index}`);
      expect(new Set(at).size, p.id).toBe(at.length);
      for (const h of p.board!.headers) {
        const on = p.pins
          .filter((x) => x.at?.header === h.id)
          .map((x) => x.at!.index)
          .sort((a, b) => a - b);
        expect(on, `${p.id} ${h.id}`).toEqual(Array.from({ length: h.count }, (_, i) => i + 1));
      }
      expect(p.board!.upload.length, p.id).toBeGreaterThan(1);
      expect(
        p.options.map((o) => o.key),
        p.id,
      ).toEqual(expect.arrayContaining(["usbRole", "radio"]));
    }
  });
});

describe("options", () => {
  it("applies a choice as a patch and leaves the part alone", () => {
    const bme = part("module/bme280");
    expect(withOptions(bme, { address: "0x77" }).groups[0]!.address).toBe("0x77");
    expect(bme.groups[0]!.address).toBe("0x76");
    expect(optionProblems(bme, { address: "0x40" })[0]!.message).toContain("0x76, 0x77");
    expect(optionProblems(bme, { colour: 1 })[0]!.message).toContain('no option "colour"');
  });
});

describe("bad part files", () => {
  it("names every mistake with its path", () => {
    const bad = structuredClone(part("module/hc-sr04")) as unknown as Record<string, unknown> & {
      levels: { main: object };
    };
    Object.assign(bad, { colour: "red" });
    Object.assign(bad.levels.main, { VIH: "2 volts" });
    const r = validatePart(bad);
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.problems.map((p) => p.path)).toEqual(expect.arrayContaining(["colour", "levels/main/VIH"]));
  });
  it("finds names that lead nowhere", () => {
    const bad = structuredClone(part("module/bme280"));
    bad.groups[0]!.pins.sda = "SDX";
    const r = validatePart(bad);
    expect(!r.ok && r.problems[0]).toEqual({ path: "groups/0/pins", message: 'there is no pin "SDX"' });
  });
  it("ships its JSON Schema, current", () => {
    const file = JSON.parse(fs.readFileSync(new URL("../../../../docs/part.schema.json", import.meta.url), "utf8"));
    expect(file).toEqual(JSON.parse(JSON.stringify(partJsonSchema())));
    expect(file.required).toEqual(expect.arrayContaining(["id", "name", "pins", "sources", "certainty"]));
  });
  it("a pin is known by its position too", () => {
    expect(findPin(part("board/rp2040-forty"), "P36")!.label).toBe("3V3");
    expect(findPin(part("board/linux-forty"), "P11")!.label).toBe("GPIO17");
  });
  it("numbers that can't be are told: crossed thresholds, ranges the wrong way round, unknown names", () => {
    const broken = (change: (p: Part) => void) => {
      const p = structuredClone(part("module/hc-sr04"));
      change(p);
      const r = validatePart(p);
      return r.ok ? "accepted" : r.problems.map((x) => `${x.path}: ${x.message}`).join("; ");
    };
    expect(broken((p) => (p.levels.main!.VIL = "0.9*V"))).toContain("VIL (4.5 V) must be below VIH (2 V)");
    expect(broken((p) => (p.supplies.main!.V = { min: 5, typ: 4, max: 6 }))).toContain("supplies/main/V: 5, 4, 6");
    expect(broken((p) => (p.levels.main!.VOH = "V-drop"))).toContain('"drop" is neither V, I nor an option');
    expect(broken((p) => (p.levels.main!.VOH = "V/0"))).toContain("has no value");
    expect(broken((p) => (p.supplies.main!.absMax_V = 3))).toContain("below the largest supply");
    expect(broken((p) => (p.channels = [{ in: "TRIG", out: "NOPE" }]))).toContain('channels/0: there is no pin "NOPE"');
  });
  it("hostile and huge files are refused before they can do harm", () => {
    expect(readPart("x".repeat(300_000))).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("larger than") }],
    });
    expect(readPart("{ not json")).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining("not valid JSON") }],
    });
    expect(readPart("[]").ok).toBe(false);
    expect(readPart("null").ok).toBe(false);
    const evil = JSON.stringify({
      ...part("module/hc-sr04"),
      __proto__: { x: 1 },
      name: "x".repeat(500),
      constructor: { y: 1 },
    });
    const r = readPart(evil);
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.problems.map((p) => p.path)).toEqual(expect.arrayContaining(["name", "constructor"]));
    expect(({} as { x?: number }).x).toBeUndefined();
    const deep = structuredClone(part("module/hc-sr04")) as unknown as { levels: { main: { VIH: string } } };
    deep.levels.main.VIH = "(".repeat(150) + "V" + ")".repeat(150);
    expect(validatePart(deep).ok).toBe(false);
  });
});
