import { celsius } from "./quantities";
import { must, read, wait, work, write } from "./steps";
import type { Device } from "./types";

/** DS18B20, alone on its wire: measure (750 ms at 12 bits), then its nine bytes. 85 degrees is what it holds before it has measured. */
export const ds18b20: Device = {
  id: "module/ds18b20",
  over: { kind: "onewire", pin: "DQ" },
  // Twelve bits, whatever an earlier program has set.
  begin: [write(0xcc, 0x4e, 0x4b, 0x46, 0x7f)],
  read: [
    write(0xcc, 0x44),
    wait(750),
    read(9, 0xcc, 0xbe),
    { do: "crc", way: "low", poly: 0x8c, init: 0, from: 0, n: 8 },
    must("u16le(0) != 0x0550 & u8(5) == 0xFF"),
    work("t_cC", "s16le(0) * 25 / 4"),
  ],
  every: 250,
  out: [celsius],
};
