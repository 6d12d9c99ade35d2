import { temperatureAndPressure, trimming } from "./air-sums";
import { celsius, humidity, pressure } from "./quantities";
import { work } from "./steps";
import type { Device } from "./types";

/** BME280: as the BMP280, and humidity, in the same whole numbers of 32 bits; a setting of it holds once the next one is written. */
export const bme280: Device = {
  id: "module/bme280",
  begin: [
    // One after the other with the first humidity word at their end.
    { do: "read", from: 0x88, n: 26 },
    ...trimming,
    work("h1", "u8(25)"),
    { do: "read", from: 0xe1, n: 7 },
    work("h2", "s16le(0)"),
    work("h3", "u8(2)"),
    // Two words of twelve bits share a byte.
    work("h4", "s8(3) * 16 | u8(4) & 15"),
    work("h5", "s8(5) * 16 | u8(4) >> 4"),
    work("h6", "s8(6)"),
    { do: "write", bytes: [0xf2, 0x01] },
    { do: "write", bytes: [0xf4, 0x27] },
    { do: "wait", ms: 10 },
  ],
  read: [
    { do: "read", from: 0xf7, n: 8 },
    ...temperatureAndPressure,
    work("g", "fine - 76800"),
    work("wet", "((u16be(6) << 14) - (h4 << 20) - h5 * g + 16384) >> 15"),
    work("by", "(((g * h6 >> 10) * ((g * h3 >> 11) + 32768) >> 10) + 2097152) * h2 + 8192 >> 14"),
    work("r", "wet * by"),
    work("r", "r - (((r >> 15) * (r >> 15) >> 7) * h1 >> 4)"),
    // In steps of a 1024th of a percent, from none to all.
    work("r", "(r < 0 ? 0 : r > 419430400 ? 419430400 : r) >> 12"),
    work("rh_c", "r * 25 >> 8"),
  ],
  every: 1000,
  out: [celsius, humidity, pressure],
};
