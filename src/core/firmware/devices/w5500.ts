import { count, must, read, wait, work } from "./steps";
import type { Device } from "./types";

/** W5500: address, control byte (common registers, read, any length), then data. Version 4; bit 0 of the line's register is its link. */
export const w5500: Device = {
  id: "module/w5500",
  over: { kind: "spi" },
  begin: [
    { do: "pin", pin: "RST", level: 0 },
    wait(1),
    { do: "pin", pin: "RST", level: 1 },
    // From data sheet: its clock is locked 1 ms later; its line takes longer.
    wait(150),
  ],
  read: [
    read(1, 0x00, 0x39, 0x00),
    must("u8(0) == 4"),
    work("version", "u8(0)"),
    read(1, 0x00, 0x2e, 0x00),
    work("link", "u8(0) & 1"),
  ],
  every: 500,
  out: [count("link", "link", [0, 1]), count("version", "version", [4, 4])],
};
