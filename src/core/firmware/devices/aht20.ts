import type { Device } from "./types";
import { celsius, humidity } from "./quantities";

/** AHT20: calibration asked for once, 75 ms a measurement at most 80; twenty bits each of humidity and temperature. */
export const aht20: Device = {
  id: "module/aht20",
  begin: [
    { do: "write", bytes: [0xbe, 0x08, 0x00] },
    { do: "wait", ms: 10 },
  ],
  read: [
    { do: "write", bytes: [0xac, 0x33, 0x00] },
    { do: "wait", ms: 80 },
    { do: "read", n: 7 },
    { do: "must", holds: "(u8(0) & 0x80) == 0" },
    { do: "crc", poly: 0x31, init: 0xff, from: 0, n: 6 },
    { do: "let", name: "rh_c", is: "(u24be(1) >> 8) * 625 >> 12" },
    { do: "let", name: "t_cC", is: "((u24be(3) & 0xFFFFF) >> 4) * 1250 / 4096 - 5000" },
  ],
  every: 1000,
  out: [celsius, humidity],
};
