import { count, must, read, wait, work, write } from "./steps";
import type { Device } from "./types";

/** Register addresses stand in bits 6 to 1; reading sets bit 7. */
const to = (register: number) => register << 1;
const of = (register: number) => 0x80 | (register << 1);

/**
 * MFRC522: asks whether a card is there, as any reader does (seven bits 0x52, which wakes one that was put to rest as well). A
 * card that has answered is mute at the next call, so two calls decide.
 */
export const rc522: Device = {
  id: "module/rc522",
  over: { kind: "spi" },
  begin: [
    { do: "pin", pin: "RST", level: 0 },
    wait(1),
    { do: "pin", pin: "RST", level: 1 },
    wait(50),
    read(1, of(0x37)),
    work("version", "u8(0)"),
    // 0x91 and 0x92 are versions 1 and 2, 0x88 is on many copies.
    must("version == 0x91 | version == 0x92 | version == 0x88"),
    // Its own timer ends the wait for an answer after 25 ms.
    write(to(0x2a), 0x80),
    write(to(0x2b), 0xa9),
    write(to(0x2c), 0x03),
    write(to(0x2d), 0xe8),
    write(to(0x15), 0x40),
    write(to(0x11), 0x3d),
    // The field is on from here.
    write(to(0x14), 0x83),
    wait(6),
    work("seen", "0"),
  ],
  read: [
    read(1, of(0x37)),
    must("u8(0) == version"),
    write(to(0x01), 0x00),
    write(to(0x04), 0x7f),
    write(to(0x0a), 0x80),
    write(to(0x09), 0x52),
    write(to(0x01), 0x0c),
    write(to(0x0d), 0x87),
    // An answer, or the end of its timer.
    { do: "until", read: { n: 1, from: of(0x04) }, holds: "(u8(0) & 0x31) != 0", every: 5, most: 20 },
    read(1, of(0x0a)),
    work("seen", "u8(0) == 2 ? 2 : seen > 0 ? seen - 1 : 0"),
    write(to(0x0d), 0x07),
    work("card", "seen > 0"),
  ],
  every: 150,
  out: [count("card", "card", [0, 1]), count("version", "version", [1, 255])],
};
