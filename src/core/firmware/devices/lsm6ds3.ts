import type { Device } from "./types";
import { acceleration } from "./quantities";

/** LSM6DS3: accelerometer at 104 a second, 2 g full scale, both bytes of a value held together; 0.061 mg a count. */
export const lsm6ds3: Device = {
  id: "module/lsm6ds3",
  begin: [
    { do: "write", bytes: [0x12, 0x44] },
    { do: "write", bytes: [0x10, 0x40] },
    { do: "wait", ms: 20 },
  ],
  read: [
    { do: "read", from: 0x28, n: 6 },
    { do: "let", name: "x_mg", is: "s16le(0) * 61 / 1000" },
    { do: "let", name: "y_mg", is: "s16le(2) * 61 / 1000" },
    { do: "let", name: "z_mg", is: "s16le(4) * 61 / 1000" },
  ],
  every: 100,
  out: acceleration,
};
