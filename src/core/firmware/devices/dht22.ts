import { celsius, humidity } from "./quantities";
import { must, read, wait, work, write } from "./steps";
import type { Device } from "./types";

/** DHT11: held low for 18 ms at least, then 40 bits: whole per cent and degrees, each before its tenth. A second between readings. */
export const dht11: Device = {
  id: "module/dht11",
  over: { kind: "pulses", pin: "OUT" },
  begin: [wait(1000)],
  read: [
    write(),
    wait(20),
    read(5),
    { do: "crc", way: "sum", poly: 0, init: 0, from: 0, n: 4 },
    // All zeros is a wire at ground: their sum is right.
    must("u16be(0) != 0 | u16be(2) != 0"),
    work("rh_c", "u8(0) * 100 + u8(1) * 10"),
    // Later copies tell degrees below zero, too: their sign stands in the tenth.
    work("t_cC", "(u8(3) & 0x80) != 0 ? -(u8(2) * 100 + (u8(3) & 0x7F) * 10) : u8(2) * 100 + u8(3) * 10"),
  ],
  every: 2000,
  out: [celsius, humidity],
};

/** DHT22: held low for a moment, then 40 bits; the temperature's sign stands apart. Two seconds from one reading to the next. */
export const dht22: Device = {
  id: "module/dht22",
  over: { kind: "pulses", pin: "OUT" },
  begin: [wait(1000)],
  read: [
    write(),
    wait(2),
    read(5),
    { do: "crc", way: "sum", poly: 0, init: 0, from: 0, n: 4 },
    // All zeros is a wire at ground: their sum is right.
    must("u16be(0) != 0 | u16be(2) != 0"),
    work("rh_c", "u16be(0) * 10"),
    work("t_cC", "(u8(2) & 0x80) != 0 ? -((u16be(2) & 0x7FFF) * 10) : u16be(2) * 10"),
  ],
  every: 2000,
  out: [celsius, humidity],
};
