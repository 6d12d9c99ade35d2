import type { Device } from "./types";

/** CCS811: its program started, a value every second, waited for by its own bit. */
export const ccs811: Device = {
  id: "module/ccs811",
  begin: [
    { do: "write", bytes: [0xf4] },
    { do: "wait", ms: 1 },
    { do: "write", bytes: [0x01, 0x10] },
  ],
  read: [
    { do: "until", read: { from: 0x00, n: 1 }, holds: "u8(0) & 0x08", every: 100, most: 20 },
    { do: "read", from: 0x02, n: 4 },
    { do: "let", name: "co2_ppm", is: "u16be(0)" },
    { do: "let", name: "voc_ppb", is: "u16be(2)" },
  ],
  every: 1000,
  out: [
    { name: "co2_ppm", word: "", unit: "ppm", digits: 0, room: [400, 29_206] },
    { name: "voc_ppb", word: "", unit: "ppb", digits: 0, room: [0, 32_768] },
  ],
};
