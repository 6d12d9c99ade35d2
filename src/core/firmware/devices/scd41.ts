import type { Device } from "./types";
import { celsius, humidity } from "./quantities";

/** SCD41: stopped in case it ran already, then measuring every 5 s; words with checksums; it does not answer before the next value is there. */
export const scd41: Device = {
  id: "module/scd41",
  begin: [
    { do: "write", bytes: [0x3f, 0x86] },
    { do: "wait", ms: 500 },
    { do: "write", bytes: [0x21, 0xb1] },
    { do: "wait", ms: 5000 },
  ],
  read: [
    { do: "write", bytes: [0xec, 0x05] },
    { do: "wait", ms: 1 },
    { do: "read", n: 9 },
    { do: "crc", poly: 0x31, init: 0xff, from: 0, n: 2 },
    { do: "crc", poly: 0x31, init: 0xff, from: 3, n: 2 },
    { do: "crc", poly: 0x31, init: 0xff, from: 6, n: 2 },
    { do: "let", name: "co2_ppm", is: "u16be(0)" },
    { do: "let", name: "t_cC", is: "u16be(3) * 17500 / 65536 - 4500" },
    { do: "let", name: "rh_c", is: "u16be(6) * 10000 / 65536" },
  ],
  every: 5200,
  out: [{ name: "co2_ppm", word: "", unit: "ppm", digits: 0, room: [300, 10_000] }, celsius, humidity],
};
