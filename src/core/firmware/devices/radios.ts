import { count, must, read, wait, work, write } from "./steps";
import type { Device, DeviceKind, Step } from "./types";

/** NRF24L01: powered up and listening at nothing; what was written to its channel register must come back. */
export const nrf24l01: Device = {
  id: "module/nrf24l01",
  over: { kind: "spi" },
  // Longest power-on reset, then the longest start of its crystal.
  // What an earlier program has left waiting goes as well.
  begin: [
    wait(100),
    write(0xe1),
    write(0xe2),
    write(0x27, 0x70),
    write(0x25, 76),
    write(0x26, 0x06),
    write(0x20, 0x0b),
    wait(5),
  ],
  read: [
    read(1, 0x05),
    must("u8(0) == 76"),
    work("channel", "u8(0)"),
    read(1, 0x07),
    work("status", "u8(0)"),
    read(1, 0x17),
    work("fifo", "u8(0)"),
    must("(fifo & 0x11) == 0x11"),
  ],
  every: 1000,
  out: [count("channel", "channel", [76, 76]), count("status", "status", [0x0e, 0x0e])],
};

/** RFM95 by LoRa registers: identity 0x12, receiving all the time, the strength of what is in the air now. */
const CARRIER: Record<string, number> = { "868": 868_100_000, "915": 915_000_000, "433": 433_175_000 };
/** Frequency in steps of 32 MHz / 2^19. */
const steps = (hz: number) => Math.round((hz * 2 ** 19) / 32_000_000);
const carrier = (band: string): Step[] => {
  const f = steps(CARRIER[band] ?? CARRIER["868"]!);
  return [write(0x86, f >> 16, (f >> 8) & 255, f & 255)];
};
export const rfm95: DeviceKind = {
  id: "module/rfm95",
  cases: [{ options: { band: "868" } }, { options: { band: "915" } }, { options: { band: "433" } }],
  of: (w) => ({
    id: "module/rfm95",
    over: { kind: "spi" },
    begin: [
      { do: "pin", pin: "RST", level: 0 },
      wait(1),
      { do: "pin", pin: "RST", level: 1 },
      wait(6),
      read(1, 0x42),
      must("u8(0) == 0x12"),
      // Asleep first: only then can it be switched over to LoRa.
      write(0x81, 0x00),
      write(0x81, 0x80),
      ...carrier(String(w.options.band ?? "868")),
      write(0x81, 0x85),
      wait(10),
    ],
    read: [
      // It listens still: a part that was reset is begun anew.
      read(1, 0x01),
      must("u8(0) == 0x85"),
      read(1, 0x1b),
      work("air_dBm", "u8(0) - 157"),
    ],
    every: 500,
    out: [{ name: "air_dBm", word: "air", unit: "dBm", digits: 0, room: [-157, 0] }],
  }),
};
