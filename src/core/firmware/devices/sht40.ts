import { celsius, humidity } from "./quantities";
import { read, wait, work, write } from "./steps";
import type { Device } from "./types";

/** SHT4x: high precision, 8.3 ms at most; each word with its checksum. Moisture beyond 0 and 100 per cent is cut off. */
export const sht40: Device = {
  id: "module/sht40",
  begin: [],
  read: [
    write(0xfd),
    wait(9),
    read(6),
    { do: "crc", poly: 0x31, init: 0xff, from: 0, n: 2 },
    { do: "crc", poly: 0x31, init: 0xff, from: 3, n: 2 },
    work("t_cC", "u16be(0) * 17500 / 65535 - 4500"),
    work("rh", "u16be(3) * 12500 / 65535 - 600"),
    work("rh_c", "rh < 0 ? 0 : rh > 10000 ? 10000 : rh"),
  ],
  every: 1000,
  out: [celsius, humidity],
};
