import type { Device } from "./types";
import { acceleration } from "./quantities";

/** ADXL345: full resolution, measuring; 3.9 mg a count, first value after 11.1 ms at 100 a second. */
export const adxl345: Device = {
  id: "module/adxl345",
  begin: [
    { do: "write", bytes: [0x31, 0x08] },
    { do: "write", bytes: [0x2d, 0x08] },
    { do: "wait", ms: 12 },
  ],
  read: [
    { do: "read", from: 0x32, n: 6 },
    { do: "let", name: "x_mg", is: "s16le(0) * 39 / 10" },
    { do: "let", name: "y_mg", is: "s16le(2) * 39 / 10" },
    { do: "let", name: "z_mg", is: "s16le(4) * 39 / 10" },
  ],
  every: 100,
  out: acceleration,
};
