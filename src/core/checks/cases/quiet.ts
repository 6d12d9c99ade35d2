import type { Project } from "../../project";
import { ADAPTER12, ADAPTER5, AVR, CABLE, CHARGER, ESP, led, make, part, RP, planned, USB } from "./build";

const FET = { seriesResistor: { ohm: 330 }, pullDown: { ohm: 10_000 } };
const FLYBACK = { flyback: { part: "discrete/diode-1n4007" } };
const board = (id: string, options: object = {}) => part("B1", `board/${id}`, options);

/** Sound projects across boards and supplies: nothing above `note` may be said about them. */
export const quiet: { name: string; project: () => Project }[] = [
  {
    name: "fern shelf: air, light and a text display on a 5 V board",
    project: () =>
      planned([
        AVR,
        USB,
        part("M1", "module/sht31"),
        part("M2", "module/lcd1602-i2c"),
        part("RV1", "discrete/potentiometer"),
        led("D1", 390),
        part("SW1", "discrete/button"),
      ]),
  },
  {
    name: "door chime: distance sensor, buzzer, three buttons",
    project: () =>
      planned([
        AVR,
        USB,
        part("M1", "module/hc-sr04"),
        part("M2", "module/buzzer-passive"),
        ...[1, 2, 3].map((n) => part(`SW${n}`, "discrete/button")),
      ]),
  },
  {
    name: "weather box at 3.3 V: air, light, clock, small display",
    project: () =>
      planned([
        RP,
        USB,
        part("M1", "module/sht31"),
        part("M2", "module/bh1750"),
        part("M3", "module/ds3231"),
        part("M4", "module/ssd1306-i2c"),
      ]),
  },
  {
    name: "logger on three cells: thermometers, card, switch",
    project: () =>
      planned([
        RP,
        part("S1", "supply/aa-3"),
        part("M1", "module/ds18b20"),
        part("M2", "module/ds18b20"),
        part("M3", "module/sd-3v3"),
        part("SW1", "discrete/button"),
        led("D1", 470),
      ]),
  },
  {
    name: "radio weather station on a charger",
    project: () =>
      planned([
        ESP,
        CHARGER,
        part("M1", "module/bme280"),
        part("M2", "module/ssd1306-i2c"),
        part("SW1", "discrete/button"),
      ]),
  },
  {
    name: "small radio sensor board on USB",
    project: () => planned([board("esp32-c3-mini"), USB, part("M1", "module/aht20")]),
  },
  {
    name: "plant pump: MOSFET with pull-down and flyback diode on its own 5 V",
    project: () =>
      make(
        [
          AVR,
          USB,
          ADAPTER5,
          part("Q1", "discrete/nmos-irlz44n", {}, FET),
          part("MT1", "discrete/pump-5v", {}, FLYBACK),
          part("M1", "module/soil-capacitive"),
        ],
        [
          CABLE,
          ["MT1.1", "S2.5V"],
          ["MT1.2", "Q1.D"],
          ["Q1.S", "S2.GND"],
          ["S2.GND", "B1.GND"],
          ["Q1.G", "B1.D7"],
          ["M1.VCC", "B1.5V"],
          ["M1.GND", "B1.GND"],
          ["M1.AOUT", "B1.A0"],
        ],
      ),
  },
  {
    name: "shop window: 40 lights on their own adapter, capacitor and data resistor",
    project: () =>
      planned([
        AVR,
        USB,
        ADAPTER5,
        part(
          "M1",
          "module/ws2812b-strip",
          { pixels: 40, brightness: 0.4 },
          { seriesResistor: { ohm: 330 }, bulkCapacitor: { F: 0.001 } },
        ),
      ]),
  },
  {
    name: "crossing gate: servo on its own supply, lights in the signal",
    project: () =>
      planned([
        AVR,
        USB,
        ADAPTER5,
        part("M1", "module/servo-small", {}, { bulkCapacitor: { F: 0.00047 } }),
        led("D1", 390),
        led("D2", 390),
        part("M2", "module/tcrt5000"),
      ]),
  },
  {
    name: "12 V coil behind a transistor, board fed from its own cable",
    project: () =>
      make(
        [
          AVR,
          USB,
          ADAPTER12,
          part("Q1", "discrete/npn-2n2222", {}, { seriesResistor: { ohm: 1000 } }),
          part("K1", "discrete/relay-coil-12v", {}, FLYBACK),
        ],
        [CABLE, ["K1.A1", "S2.12V"], ["K1.A2", "Q1.C"], ["Q1.E", "S2.GND"], ["S2.GND", "B1.GND"], ["Q1.B", "B1.D7"]],
      ),
  },
  {
    name: "isolated input: two supplies that never meet",
    project: () =>
      make(
        [AVR, USB, ADAPTER5, part("M1", "module/isolator-2ch", {}, { decoupling: { F: 1e-7 } })],
        [
          CABLE,
          ["M1.VCC1", "B1.5V"],
          ["M1.GND1", "B1.GND"],
          ["M1.VCC2", "S2.5V"],
          ["M1.GND2", "S2.GND"],
          ["M1.OUTB", "B1.D3"],
        ],
        { isolated: [["B1"], ["S2"]] },
      ),
  },
  {
    name: "bare chip with its capacitors on a 5 V adapter, lights and a button",
    project: () =>
      planned([
        part("B1", "chip/atmega328p-dip28", {}, { decoupling: { F: 1e-7 }, pullUp: { ohm: 10_000 } }),
        { ...ADAPTER5, ref: "S1" },
        led("D1", 390),
        led("D2", 390),
        part("SW1", "discrete/button"),
      ]),
  },
  {
    name: "thermocouple and display on one bus, 3.3 V",
    project: () =>
      planned([
        board("rp2350-forty"),
        CHARGER,
        part("M1", "module/st7789"),
        part("M2", "module/max31855"),
        part("M3", "module/encoder"),
      ]),
  },
  {
    name: "position finder on a serial port",
    project: () =>
      planned([board("rp2040-mini"), USB, part("M1", "module/gps-neo6m"), part("M2", "module/ssd1306-i2c")]),
  },
];
