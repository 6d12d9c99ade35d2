import { count, must, read, work, write } from "./steps";
import type { Device, Step } from "./types";

/** A frame is waited for as long as a part takes between two, and a little more. */
const frame = (n: number, most: number): Step[] => [
  { do: "until", read: { n: 1 }, holds: "u8(0) == 1", every: 20, most },
  read(n),
];

/** PMS5003: 32 bytes a second or more often, begun by BM; dust in the air as it is, microgrammes a cubic metre. */
const SUM = Array.from({ length: 30 }, (_, i) => `u8(${i})`).join(" + ");
export const pms5003: Device = {
  id: "module/pms5003",
  over: { kind: "uart", frame: { start: [0x42, 0x4d], n: 32 } },
  begin: [],
  read: [
    ...frame(32, 200),
    must(`u16be(2) == 28 & ${SUM} == u16be(30)`),
    work("dust1", "u16be(10)"),
    work("dust25", "u16be(12)"),
    work("dust10", "u16be(14)"),
  ],
  every: 200,
  out: [
    { name: "dust25", word: "PM2.5", unit: "ug", digits: 0, room: [0, 1000] },
    { name: "dust10", word: "PM10", unit: "", digits: 0, room: [0, 2000] },
    { name: "dust1", word: "PM1", unit: "", digits: 0, room: [0, 1000] },
  ],
};

/** MH-Z19B: asked by nine bytes, answers by nine; the sum of bytes 1 to 7 and its check make 256. */
export const mhz19b: Device = {
  id: "module/mhz19b",
  over: { kind: "uart", frame: { start: [0xff, 0x86], n: 9 } },
  begin: [],
  read: [
    write(0xff, 0x01, 0x86, 0x00, 0x00, 0x00, 0x00, 0x00, 0x79),
    ...frame(9, 20),
    must("(u8(1) + u8(2) + u8(3) + u8(4) + u8(5) + u8(6) + u8(7) + u8(8) & 255) == 0"),
    work("co2_ppm", "u16be(2)"),
  ],
  every: 2000,
  // The other bytes of its answer are not in its data sheet.
  out: [{ name: "co2_ppm", word: "CO2", unit: "ppm", digits: 0, room: [300, 5000] }],
};

/** A receiver for satellites: once a second it tells whether it knows where it is. Time is that of Greenwich. */
export const gps: Device = {
  id: "module/gps-neo6m",
  over: { kind: "uart", frame: { sentence: "GGA" } },
  begin: [],
  read: [
    ...frame(13, 150),
    work("fix", "u8(0)"),
    work("sats", "u8(1)"),
    work("hour", "u8(2)"),
    work("minute", "u8(3)"),
    work("second", "u8(4)"),
    work("north", "s16be(5) * 65536 + u16be(7)"),
    work("east", "s16be(9) * 65536 + u16be(11)"),
  ],
  every: 200,
  out: [
    count("fix", "fix", [0, 1]),
    count("sats", "sats", [0, 40]),
    { name: "north", word: "", unit: "", digits: 5, room: [-9_000_000, 9_000_000] },
    { name: "east", word: "", unit: "", digits: 5, room: [-18_000_000, 18_000_000] },
    count("hour", "", [0, 23]),
    count("minute", "", [0, 59]),
    count("second", "", [0, 60]),
  ],
};
