import type { Device } from "./types";
import { lux } from "./quantities";

/** VEML7700: on, gain 1, 100 ms; 0.0672 lx a count by the newer issues of its data sheet (older ones: 0.0576). */
export const veml7700: Device = {
  id: "module/veml7700",
  begin: [
    { do: "write", bytes: [0x00, 0x00, 0x00] },
    { do: "wait", ms: 110 },
  ],
  read: [
    { do: "read", from: 0x04, n: 2 },
    { do: "let", name: "lux", is: "u16le(0) * 672 / 10000" },
  ],
  every: 500,
  out: [lux],
};
