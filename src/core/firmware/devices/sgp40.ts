import type { Device } from "./types";

/** SGP40: raw signal for 50 % and 25 degrees, 30 ms at most; falls when there is more in the air. */
export const sgp40: Device = {
  id: "module/sgp40",
  begin: [],
  read: [
    { do: "write", bytes: [0x26, 0x0f, 0x80, 0x00, 0xa2, 0x66, 0x66, 0x93] },
    { do: "wait", ms: 30 },
    { do: "read", n: 3 },
    { do: "crc", poly: 0x31, init: 0xff, from: 0, n: 2 },
    { do: "let", name: "raw", is: "u16be(0)" },
  ],
  every: 1000,
  out: [{ name: "raw", word: "air", unit: "", digits: 0, room: [1, 65_534] }],
};
