import { count, must, read, work, write } from "./steps";
import type { Device } from "./types";

/** AT24C32: only read, so that nothing that somebody has kept there is lost; its address is two bytes. */
export const at24c32: Device = {
  id: "module/at24c32",
  begin: [],
  read: [read(1, 0x00, 0x00), work("byte", "u8(0)")],
  every: 1000,
  out: [count("byte", "first byte", [0, 255])],
};

/** TCA9548A: a branch that was chosen must be told back; none is chosen at rest. */
export const tca9548a: Device = {
  id: "module/tca9548a",
  begin: [write(0x80), read(1), must("u8(0) == 0x80"), write(0x00)],
  read: [read(1), work("open", "u8(0)"), must("open == 0")],
  every: 500,
  out: [count("open", "branches", [0, 0])],
};
