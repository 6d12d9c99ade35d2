import type { Device } from "./types";

/** APDS9960: light and nearness on, 200 ms of light a reading (256 - 0xB6 steps of 2.78 ms). */
export const apds9960: Device = {
  id: "module/apds9960",
  begin: [
    { do: "write", bytes: [0x81, 0xb6] },
    { do: "write", bytes: [0x80, 0x07] },
    { do: "wait", ms: 220 },
  ],
  read: [
    { do: "read", from: 0x94, n: 2 },
    { do: "let", name: "light", is: "u16le(0)" },
    { do: "read", from: 0x9c, n: 1 },
    { do: "let", name: "near", is: "u8(0)" },
  ],
  every: 250,
  out: [
    { name: "light", word: "light", unit: "", digits: 0, room: [0, 65_535] },
    { name: "near", word: "near", unit: "", digits: 0, room: [0, 255] },
  ],
};
