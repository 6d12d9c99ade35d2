/** Projects that the cases of several rules are made of. */
import { ADAPTER5, AVR, CABLE, make, part, USB, type Links } from "./build";

export const BULK = { bulkCapacitor: { F: 0.001 } };

export const DATA = { seriesResistor: { ohm: 330 } };

export const strip = (pixels: number, brightness: number, more: object = {}, companions: object = BULK) => ({
  ...part("M1", "module/ws2812b-strip", { pixels, brightness, ...more }, { ...DATA, ...companions }),
});

export const onUsb = (pixels: number, brightness: number, board: object = AVR, source: object = USB) =>
  make(
    [board, source, strip(pixels, brightness)],
    [CABLE, ["M1.5V", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
  );

export const own = (s: object, supply = "supply/adapter-5v-10a") =>
  make(
    [AVR, USB, { ref: "S2", part: supply }, s],
    [CABLE, ["M1.5V", "S2.5V"], ["M1.GND", "S2.GND"], ["S2.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
  );

export const twice = (cable: boolean) =>
  make([AVR, USB, ADAPTER5], [...((cable ? [CABLE] : []) as Links), ["S2.5V", "B1.5V"], ["S2.GND", "B1.GND"]]);

export const CHIP = { ref: "B1", part: "chip/atmega328p-dip28", companions: { decoupling: { F: 1e-7 } } };

export const sagging = (load_mA: number, place = "room") =>
  make(
    [
      CHIP,
      part("S1", "supply/aa-3"),
      part("Q1", "discrete/nmos-ao3400", {}, { seriesResistor: { ohm: 330 }, pullDown: { ohm: 10_000 } }),
      part("MT1", "discrete/motor-dc", { load_V: 3, load_mA }, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [
      ["S1.+", "B1.VCC"],
      ["S1.+", "B1.AVCC"],
      ["S1.-", "B1.GND"],
      ["S1.-", "B1.GND.2"],
      ["MT1.1", "S1.+"],
      ["MT1.2", "Q1.D"],
      ["Q1.S", "S1.-"],
      ["Q1.G", "B1.PD4"],
    ],
    { brief: { place } },
  );

export const gauge = (awg: number, cm: number, px: number) => own({ ...strip(px, 1, { wire_awg: awg }), wire_cm: cm });
