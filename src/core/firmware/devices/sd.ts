import { each, must, read, wait, work } from "./steps";
import type { Device } from "./types";

/**
 * A memory card by SPI: called to its senses, asked whether it is of the second kind, woken, then asked which it is. Its answer
 * begins with the first byte that is not all ones. Nothing is written to it.
 */
const card = (id: string): Device => ({
  id,
  over: { kind: "spi", idle: 0xff, wake: 10 },
  begin: [
    wait(1),
    read(1, 0x40, 0, 0, 0, 0, 0x95),
    must("u8(0) == 1"),
    // A card of the first kind does not know this; one of the second gives the last byte back.
    read(5, 0x48, 0, 0, 1, 0xaa, 0x87),
    must("u8(0) == 5 | u8(4) == 0xAA"),
    // Waking takes up to a second: it is asked again and again.
    each("i", 50, read(1, 0x77, 0, 0, 0, 0, 0x65), read(1, 0x69, 0x40, 0, 0, 0, 0x77), work("r", "u8(0)"), wait(20)),
    must("r == 0"),
  ],
  read: [
    read(2, 0x7a, 0, 0, 0, 0, 0xfd),
    // It is up, and whether its blocks are counted.
    must("u8(0) == 0 & u8(1) > 127"),
    work("card", "(u8(1) & 64) == 64 ? 2 : 1"),
  ],
  every: 1000,
  logs: true,
  out: [{ name: "card", word: "card of kind", unit: "", digits: 0, room: [1, 2] }],
});

export const sd3v3 = card("module/sd-3v3");
export const sdShifted = card("module/sd-shifted");
