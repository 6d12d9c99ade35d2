import { must, read, work } from "./steps";
import type { Device } from "./types";

/** MAX31855: 32 bits, the two reserved ones always 0; bit 16 and the last three tell of a broken or shorted thermocouple. */
export const max31855: Device = {
  id: "module/max31855",
  over: { kind: "spi" },
  begin: [],
  read: [
    read(4),
    must("(u8(1) & 3) == 0 & (u8(3) & 15) == 0"),
    work("t_cC", "(s16be(0) >> 2) * 25"),
    work("chip_cC", "(s16be(2) >> 4) * 25 / 4"),
  ],
  every: 250,
  out: [
    { name: "t_cC", word: "", unit: "C", digits: 2, shown: 1, room: [-20_000, 135_000] },
    // The chip's own place is in a room: a line without a part reads 0.00 here.
    { name: "chip_cC", word: "chip", unit: "C", digits: 2, shown: 0, room: [100, 7000] },
  ],
};

/** MAX6675: 16 bits, a 0 first, 12 bits of quarter degrees, then whether the thermocouple is open, and a 0. 0.22 s a reading. */
export const max6675: Device = {
  id: "module/max6675",
  over: { kind: "spi" },
  begin: [],
  read: [read(2), must("(u8(0) & 0x80) == 0 & (u8(1) & 6) == 0"), work("t_cC", "(u16be(0) >> 3) * 25")],
  every: 300,
  // 0.00 is what a line without a part reads.
  out: [{ name: "t_cC", word: "", unit: "C", digits: 2, shown: 1, room: [100, 102_375] }],
};
