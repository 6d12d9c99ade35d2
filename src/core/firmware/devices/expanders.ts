import type { Device, Quantity } from "./types";

const bits = (most: number): Quantity => ({ name: "bits", word: "in", unit: "", digits: 0, room: [0, most] });

/** PCF8574: all lines let go, so that they can be read. */
export const pcf8574: Device = {
  id: "module/pcf8574",
  begin: [{ do: "write", bytes: [0xff] }],
  read: [
    { do: "read", n: 1 },
    { do: "let", name: "bits", is: "u8(0)" },
  ],
  every: 50,
  out: [bits(255)],
};

/** MCP23017: all lines inputs with their own pull-ups, both ports read together. */
export const mcp23017: Device = {
  id: "module/mcp23017",
  begin: [
    { do: "write", bytes: [0x00, 0xff, 0xff] },
    { do: "write", bytes: [0x0c, 0xff, 0xff] },
  ],
  read: [
    { do: "read", from: 0x12, n: 2 },
    { do: "let", name: "bits", is: "u16le(0)" },
  ],
  every: 50,
  out: [bits(65_535)],
};
