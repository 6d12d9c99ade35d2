import { temperatureAndPressure, trimming } from "./air-sums";
import { celsius, pressure } from "./quantities";
import type { Device } from "./types";

/** BMP280: normal mode, oversampling 1. */
export const bmp280: Device = {
  id: "module/bmp280",
  begin: [{ do: "read", from: 0x88, n: 24 }, ...trimming, { do: "write", bytes: [0xf4, 0x27] }, { do: "wait", ms: 10 }],
  read: [{ do: "read", from: 0xf7, n: 6 }, ...temperatureAndPressure],
  every: 1000,
  out: [celsius, pressure],
};
