import { count, must, read, wait, work, write } from "./steps";
import type { DeviceKind } from "./types";

const WRITE = 0x02;
const READ = 0x03;
const CANCTRL = 0x0f;
const CANSTAT = 0x0e;
const CANINTF = 0x2c;
/** Timing registers for 125 kbit/s: 16 quanta of 0.5 us a bit, sampled at three quarters: CNF3, CNF2, CNF1. By the crystal's megahertz. */
const TIMING: Record<string, [number, number, number]> = { "8mhz": [0x03, 0xba, 0x01], "16mhz": [0x03, 0xba, 0x03] };

/** MCP2515: sends itself a frame inside the chip first, which proves it without a bus; then only listens, and counts. */
export const mcp2515: DeviceKind = {
  id: "module/mcp2515",
  cases: [{ options: { crystal: "8mhz" } }, { options: { crystal: "16mhz" } }],
  of: (w) => ({
    id: "module/mcp2515",
    over: { kind: "spi" },
    begin: [
      write(0xc0),
      wait(10),
      write(WRITE, 0x28, ...(TIMING[w.options.crystal ?? "8mhz"] ?? TIMING["8mhz"]!)),
      // Its first receiver takes everything.
      write(WRITE, 0x60, 0x60),
      write(WRITE, CANCTRL, 0x40),
      { do: "until", read: { n: 1, from: [READ, CANSTAT] }, holds: "(u8(0) & 0xE0) == 0x40", every: 1, most: 20 },
      // Standard identifier 0x123, one byte.
      write(0x40, 0x24, 0x60, 0x00, 0x00, 0x01, 0xa5),
      write(0x81),
      { do: "until", read: { n: 1, from: [READ, CANINTF] }, holds: "(u8(0) & 1) == 1", every: 1, most: 20 },
      read(6, READ, 0x61),
      must("u8(0) == 0x24 & (u8(1) & 0xE0) == 0x60 & u8(4) == 1 & u8(5) == 0xA5"),
      write(WRITE, CANINTF, 0x00),
      write(WRITE, CANCTRL, 0x60),
      { do: "until", read: { n: 1, from: [READ, CANSTAT] }, holds: "(u8(0) & 0xE0) == 0x60", every: 1, most: 20 },
      work("frames", "0"),
      work("id", "0"),
    ],
    read: [
      read(1, READ, CANSTAT),
      must("(u8(0) & 0xE0) == 0x60"),
      read(1, READ, CANINTF),
      work("came", "u8(0) & 1"),
      read(2, READ, 0x61),
      work("id", "came ? u16be(0) >> 5 : id"),
      work("frames", "(frames + came) % 10000"),
      // The flag of the first buffer alone, and only when it was seen: what came since stays.
      write(0x05, CANINTF, "came", 0x00),
    ],
    every: 20,
    out: [count("frames", "frames", [0, 9999]), count("id", "last", [0, 2047])],
  }),
};
