import { must, read, work } from "./steps";
import type { Device } from "./types";

/** HX711, channel A with gain 128 (one clock more): 24 bits in two's complement. 400 ms until it has settled. */
export const hx711: Device = {
  id: "module/hx711",
  over: { kind: "clocked", data: "DT", clock: "SCK", more: 1 },
  begin: [],
  read: [
    { do: "until", read: { n: 1 }, holds: "u8(0) == 1", every: 10, most: 60 },
    read(3),
    work("raw", "(u24be(0) ^ 0x800000) - 0x800000"),
    // A wire at ground, and one that is let go.
    must("raw != 0 & raw != -1"),
  ],
  every: 100,
  // Its ends are what it gives when the cell is missing or broken.
  out: [{ name: "raw", word: "load", unit: "", digits: 0, room: [-8_388_607, 8_388_606] }],
  proof: { kind: "watch", act: "press on the load cell and hold", by: 5000 },
};
