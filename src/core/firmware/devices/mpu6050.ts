import type { Device } from "./types";
import { acceleration, celsius } from "./quantities";

/** MPU6050: woken, 2 g full scale; 16384 counts a g, 340 counts a degree from 36.53. */
export const mpu6050: Device = {
  id: "module/mpu6050",
  begin: [
    { do: "write", bytes: [0x6b, 0x00] },
    { do: "wait", ms: 100 },
    { do: "write", bytes: [0x1c, 0x00] },
    { do: "wait", ms: 10 },
  ],
  read: [
    { do: "read", from: 0x3b, n: 14 },
    { do: "let", name: "x_mg", is: "s16be(0) * 1000 / 16384" },
    { do: "let", name: "y_mg", is: "s16be(2) * 1000 / 16384" },
    { do: "let", name: "z_mg", is: "s16be(4) * 1000 / 16384" },
    { do: "let", name: "t_cC", is: "s16be(6) * 100 / 340 + 3653" },
  ],
  every: 100,
  out: [...acceleration, celsius],
};
