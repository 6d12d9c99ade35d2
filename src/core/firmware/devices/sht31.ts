import type { Device } from "./types";
import { celsius, humidity } from "./quantities";

/** SHT31: single shot with high repeatability, 15.5 ms at most; each word with its checksum. */
export const sht31: Device = {
  id: "module/sht31",
  begin: [],
  read: [
    { do: "write", bytes: [0x24, 0x00] },
    { do: "wait", ms: 16 },
    { do: "read", n: 6 },
    { do: "crc", poly: 0x31, init: 0xff, from: 0, n: 2 },
    { do: "crc", poly: 0x31, init: 0xff, from: 3, n: 2 },
    { do: "let", name: "t_cC", is: "u16be(0) * 17500 / 65535 - 4500" },
    { do: "let", name: "rh_c", is: "u16be(3) * 10000 / 65535" },
  ],
  every: 1000,
  out: [celsius, humidity],
};
