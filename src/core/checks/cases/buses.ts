import { AVR, CABLE, changed, CHARGER, drop, ESP, make, part, RP, planned, USB, type Case, type Links } from "./build";

const bus = (list: object[], more: object = {}) => {
  const links: Links = list.flatMap((p): Links => {
    const ref = (p as { ref: string }).ref;
    return [
      [`${ref}.VCC`, "B1.5V"],
      [`${ref}.GND`, "B1.GND"],
      [`${ref}.SDA`, "B1.A4"],
      [`${ref}.SCL`, "B1.A5"],
    ];
  });
  return make([AVR, USB, ...list], [CABLE, ...links], more);
};
const bus3 = (list: object[], more: object = {}) => {
  const links: Links = list.flatMap((p): Links => {
    const ref = (p as { ref: string }).ref;
    return [
      [`${ref}.VCC`, "B1.3V3"],
      [`${ref}.GND`, "B1.GND"],
      [`${ref}.SDA`, "B1.GP4"],
      [`${ref}.SCL`, "B1.GP5"],
    ];
  });
  return make([RP, USB, ...list], [CABLE, ...links], more);
};
const fast = { buses: [{ host: "B1", bus: "i2c0", clock_Hz: 400_000 }] };
const air = (address: string, more: object = {}) => ({ ...part("M1", "module/bme280", { address }), ...more });
const two = (a: string, b: string) => bus3([air(a), part("M2", "module/bme280", { address: b })]);
const show = part("M2", "module/ssd1306-i2c");
const clockPart = part("M3", "module/ds3231");
const text = part("M1", "module/lcd1602-i2c");

const spi = (list: object[], more: object = {}) => planned([RP, CHARGER, ...list], more);
const gps = (tx: string, rx: string) =>
  make(
    [RP, USB, part("M1", "module/gps-neo6m")],
    [CABLE, ["M1.VCC", "B1.VBUS"], ["M1.GND", "B1.GND"], ["M1.TX", `B1.${tx}`], ["M1.RX", `B1.${rx}`]],
  );
const CHIP = (clock_Hz: string) => ({
  ref: "B1",
  part: "chip/atmega328p-dip28",
  options: { clock_Hz },
  companions: { decoupling: { F: 1e-7 } },
});
const serial = (clock: string, baud: string) =>
  make(
    [CHIP(clock), { ref: "S1", part: "supply/adapter-5v-2a" }, part("M1", "module/usb-uart-5v", { baud })],
    [
      ["S1.5V", "B1.VCC"],
      ["S1.5V", "B1.AVCC"],
      ["S1.GND", "B1.GND"],
      ["S1.GND", "B1.GND.2"],
      ["M1.GND", "S1.GND"],
      ["M1.TX", "B1.PD0"],
      ["M1.RX", "B1.PD1"],
    ],
  );

const pot = (board: object, rail: string, pin: string, resistance_ohm = 10_000) =>
  make(
    [board, USB, part("RV1", "discrete/potentiometer", { resistance_ohm })],
    [CABLE, ["RV1.1", rail], ["RV1.3", "B1.GND"], ["RV1.2", `B1.${pin}`]],
  );
const light = (pullDown: object | null) =>
  make([RP, USB, part("RV1", "discrete/ldr", {}, { pullDown })], [CABLE, ["RV1.1", "B1.3V3"], ["RV1.2", "B1.GP26"]]);
const press = (to: string) =>
  make(
    [RP, USB, part("SW1", "discrete/button", {}, { pullUp: "internal" })],
    [CABLE, ["SW1.1", "B1.GP2"], ["SW1.2", to]],
  );
const can = (termination: object | null | undefined) =>
  make(
    [
      RP,
      USB,
      {
        ref: "M1",
        part: "module/max3485",
        companions: { pullDown: { ohm: 10_000 }, ...(termination !== undefined && { termination }) },
      },
      part("J1", "connector/screw-2", { pins: { "1": { name: "A", role: "digital-io", V: 3.3 }, "2": null } }),
    ],
    [
      CABLE,
      ["M1.VCC", "B1.3V3"],
      ["M1.GND", "B1.GND"],
      ["M1.RO", "B1.GP1"],
      ["M1.DI", "B1.GP0"],
      ["M1.DE", "B1.GP2"],
      ["M1.RE", "B1.GP3"],
      ["M1.A", "J1.1"],
    ],
  );
const keys = (n: number) =>
  n === 4
    ? planned([RP, USB, part("M1", "module/keypad-4x4")])
    : planned([RP, USB, part("SW1", "discrete/button"), part("SW2", "discrete/button")]);
const strip = (series: object | null) =>
  make(
    [
      AVR,
      USB,
      part(
        "M1",
        "module/ws2812b-strip",
        { pixels: 6, brightness: 0.3 },
        { seriesResistor: series, bulkCapacitor: { F: 0.001 } },
      ),
    ],
    [CABLE, ["M1.5V", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
  );
const shifted = part("M1", "module/sd-shifted");
const plain = part("M1", "module/mcp3008", {}, { decoupling: { F: 1e-7 } });
const thermo = part("M2", "module/rc522");

const ISOLATED: Links = [
  ["M2.VCC1", "B1.3V3"],
  ["M2.GND1", "B1.GND"],
  ["M2.VCC2", "S2.+"],
  ["M2.GND2", "S2.-"],
  ["M1.VCC", "S2.+"],
  ["M1.GND", "S2.-"],
  ["M2.INB", "M1.SDA"],
  ["M2.OUTB", "B1.GP4"],
  ["M2.INA", "B1.GP5"],
  ["M2.OUTA", "M1.SCL"],
];
const gap = (second: object, links: Links) =>
  make(
    [
      RP,
      USB,
      { ref: "S2", part: "supply/bench", options: { output_V: 5 } },
      part("M2", "module/isolator-2ch", {}, { decoupling: { F: 1e-7 } }),
      second,
    ],
    [CABLE, ...links],
    { houseRules: { grounds: "isolated" } },
  );
const probe = (vdd: string) =>
  make(
    [RP, USB, part("M1", "module/ds18b20", {}, { pullUp: { ohm: 4700 } })],
    [CABLE, ["M1.VDD", vdd], ["M1.GND", "B1.GND"], ["M1.DQ", "B1.GP2"]],
  );
const wet = (shifter: object | null) =>
  make(
    [AVR, USB, part("M1", "module/dht22", {}, { pullUp: { ohm: 4700 }, ...(shifter && { shifter }) })],
    [CABLE, ["M1.VCC", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.DATA", "B1.D4"]],
  );

/** Buses and inputs: addresses, pull-ups, clocks, crossing, rates, converters. */
export const busCases: Case[] = [
  {
    rule: "i2c.address-clash",
    severity: "fault",
    says: "two air sensors at one address",
    bad: () => two("0x76", "0x76"),
    near: () => two("0x76", "0x77"),
    fix: "address-0x77",
  },
  {
    rule: "i2c.pullup-missing",
    severity: "fault",
    says: "a bare memory alone on the bus",
    bad: () => bus([part("M1", "module/at24c32")]),
    near: () => bus([part("M1", "module/at24c32", {}, { pullUp: { ohm: 4700 } })]),
    fix: "pull-up",
  },
  {
    rule: "i2c.pullup-strong",
    severity: "risk",
    says: "three modules with 4.7 kΩ each at 5 V",
    bad: () => bus([text, show, clockPart]),
    near: () => bus([text, show]),
  },
  {
    rule: "i2c.rise-time",
    severity: "risk",
    says: "10 kΩ at 400 kHz over 30 cm",
    bad: () => bus3([air("0x76", { wire_cm: 30 })], fast),
    near: () => bus3([air("0x76", { wire_cm: 30 })]),
    fix: "stronger",
  },
  {
    rule: "i2c.capacitance",
    severity: "fault",
    says: "four metres of bus",
    bad: () => bus3([{ ...part("M1", "module/ssd1306-i2c"), wire_cm: 400 }]),
    near: () => bus3([{ ...part("M1", "module/ssd1306-i2c"), wire_cm: 100 }]),
    fix: "shorten",
  },
  {
    rule: "i2c.clock",
    severity: "fault",
    says: "a text display at 400 kHz",
    bad: () => bus([text], { buses: [{ host: "B1", bus: "i2c0", clock_Hz: 400_000 }] }),
    near: () => bus([text]),
    fix: "slower",
  },
  {
    rule: "spi.miso-held",
    severity: "fault",
    says: "a display that does not let go, beside a card",
    bad: () => spi([shifted, thermo]),
    near: () => spi([plain, thermo]),
  },
  {
    rule: "uart.not-crossed",
    severity: "fault",
    says: "TX on TX",
    bad: () => gps("GP0", "GP1"),
    near: () => gps("GP1", "GP0"),
    fix: "cross",
  },
  {
    rule: "uart.baud",
    severity: "fault",
    says: "115200 baud from the chip's own oscillator",
    bad: () => serial("8000000", "115200"),
    near: () => serial("16000000", "9600"),
  },
  {
    rule: "uart.baud",
    severity: "risk",
    says: "9600 baud from the chip's own oscillator",
    bad: () => serial("8000000", "9600"),
    near: () => serial("16000000", "9600"),
    fix: "crystal",
  },
  {
    rule: "net.one-way",
    severity: "fault",
    says: "an I2C clock behind an isolator with one line each way",
    bad: () => gap(part("M1", "module/ds3231"), ISOLATED),
    near: () => bus3([part("M1", "module/ds3231")]),
  },
  {
    rule: "net.one-way",
    severity: "fault",
    says: "a buffer in the wire of a sensor that is asked and answers on it",
    bad: () => wet({ part: "module/buffer-74ahct125" }),
    near: () => wet(null),
    fix: "no-buffer",
  },
  {
    rule: "onewire.parasitic",
    severity: "fault",
    says: "a one-wire sensor with VDD at ground",
    bad: () => probe("B1.GND"),
    near: () => probe("B1.3V3"),
    fix: "logic-supply",
  },
  {
    rule: "adc.range",
    severity: "risk",
    says: "3.3 V into a converter that reads full at 2.5 V",
    bad: () => pot({ ref: "B1", part: "board/esp32-c3-mini", options: { radio: "false" } }, "B1.3V3", "GPIO3"),
    near: () => pot(ESP, "B1.3V3", "GPIO34"),
  },
  {
    rule: "adc.one-sided",
    severity: "fault",
    says: "a photoresistor without its partner",
    bad: () => light(null),
    near: () => light({ ohm: 10_000 }),
    fix: "partner",
  },
  {
    rule: "adc.one-sided",
    severity: "fault",
    says: "a potentiometer on two of its legs",
    bad: () => changed(pot(AVR, "B1.5V", "A0"), drop("RV1.3", "B1.GND")),
    near: () => pot(AVR, "B1.5V", "A0"),
    fix: "partner",
  },
  {
    rule: "contact.unchanged",
    severity: "fault",
    says: "a button with a pull-up that closes to the supply",
    bad: () => press("B1.3V3"),
    near: () => press("B1.GND"),
    fix: "return",
  },
  {
    rule: "contact.unchanged",
    severity: "fault",
    says: "a button from one pin to another",
    bad: () => press("B1.GP3"),
    near: () => press("B1.GND"),
    fix: "return",
  },
  {
    rule: "adc.impedance",
    severity: "risk",
    says: "a 100 kΩ potentiometer",
    bad: () => pot(AVR, "B1.5V", "A0", 100_000),
    near: () => pot(AVR, "B1.5V", "A0", 10_000),
    fix: "capacitor",
  },
  {
    rule: "matrix.ghosting",
    severity: "note",
    says: "a keypad without diodes",
    bad: () => keys(4),
    near: () => keys(2),
  },
  {
    rule: "led.data-resistor",
    severity: "note",
    says: "a strip without a resistor in its data wire",
    bad: () =>
      make(
        [AVR, USB, part("M1", "module/ws2812b-strip", { pixels: 6, brightness: 0.3 }, { bulkCapacitor: { F: 0.001 } })],
        [CABLE, ["M1.5V", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
      ),
    near: () => strip({ ohm: 330 }),
  },
  {
    rule: "bus.termination",
    severity: "note",
    says: "a CAN pair that leaves the bench",
    bad: () => can(undefined),
    near: () => can({ ohm: 120 }),
  },
];
