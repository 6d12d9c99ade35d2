import type { DriverPart } from "../types";
import { escaped, listInC, type Link } from "./types";

const groupOf = (p: DriverPart) => p.inst.part.groups.find((g) => g.kind === "spi")!;
const ROLES = ["cs", "sck", "mosi", "miso"] as const;
/** The part's lines in that order, as they are called in the program; those that it has not, or are not wired, by another name. */
const lines = (p: DriverPart, pin: (name: string) => string, none: string) =>
  ROLES.map((r) => {
    const label = groupOf(p).pins[r];
    return label && p.has(label) ? pin(p.pin(label)) : none;
  });
const mode = (p: DriverPart) => groupOf(p).mode ?? 0;

/**
 * SPI timed by the program, on the planned pins and no others: a controller takes its lines whole, and would drive pins that the
 * plan gave to something else. At most 500 kHz, which all parts of the catalogue take.
 */
export const spi: Link<"spi"> = {
  c: () => ({
    helpers: `// SPI timed by the program: it touches the planned pins and no others. 255: no such line.
struct SpiPins {
  uint8_t cs, sck, mosi, miso, mode;
};
static void __attribute__((unused)) spiBegin(const SpiPins &s) {
  digitalWrite(s.cs, HIGH);
  pinMode(s.cs, OUTPUT);
  digitalWrite(s.sck, s.mode & 2 ? HIGH : LOW);
  pinMode(s.sck, OUTPUT);
  if (s.mosi != 255) pinMode(s.mosi, OUTPUT);
  if (s.miso != 255) pinMode(s.miso, INPUT);
}
static uint8_t __attribute__((unused)) spiByte(const SpiPins &s, uint8_t out) {
  uint8_t idle = s.mode & 2 ? HIGH : LOW;
  uint8_t in = 0;
  for (uint8_t bit = 0x80; bit; bit >>= 1) {
    if (s.mode & 1) digitalWrite(s.sck, !idle);
    if (s.mosi != 255) digitalWrite(s.mosi, out & bit ? HIGH : LOW);
    delayMicroseconds(1);
    digitalWrite(s.sck, s.mode & 1 ? idle : !idle);
    if (s.miso != 255 && digitalRead(s.miso)) in |= bit;
    delayMicroseconds(1);
    if (!(s.mode & 1)) digitalWrite(s.sck, idle);
  }
  return in;
}
// One message: bytes out, then bytes in.
static bool __attribute__((unused)) spiSwap(const SpiPins &s, const uint8_t *list, uint8_t k, uint8_t *to, uint8_t n) {
  digitalWrite(s.sck, s.mode & 2 ? HIGH : LOW);
  digitalWrite(s.cs, LOW);
  delayMicroseconds(1);
  while (k--) spiByte(s, *list++);
  while (n--) *to++ = spiByte(s, 0);
  digitalWrite(s.cs, HIGH);
  return true;
}`,
    globals: (p) => `static const SpiPins ${p.id}_spi = {${lines(p, (n) => n, "255").join(", ")}, ${mode(p)}};`,
    setup: (p) => `spiBegin(${p.id}_spi);`,
    write: (p, bytes) => listInC(bytes, (list, n) => `spiSwap(${p.id}_spi, ${list}, ${n}, nullptr, 0);`),
    read: (p, n, from) =>
      from === undefined
        ? `spiSwap(${p.id}_spi, nullptr, 0, b, ${n})`
        : `spiSwap(${p.id}_spi, (const uint8_t *)"${escaped(from)}", ${from.length}, b, ${n})`,
  }),
  python: () => ({
    lib: {
      path: "lib/spi.py",
      text: `from machine import Pin
import time


class Spi:
    """SPI timed by the program: it touches the planned pins and no others. None: no such line."""

    def __init__(self, cs, sck, mosi, miso, mode):
        self.idle = mode >> 1
        self.late = mode & 1
        self.cs = Pin(cs, Pin.OUT, value=1)
        self.sck = Pin(sck, Pin.OUT, value=self.idle)
        self.mosi = None if mosi is None else Pin(mosi, Pin.OUT, value=0)
        self.miso = None if miso is None else Pin(miso, Pin.IN)

    def byte(self, out):
        got = 0
        for k in range(7, -1, -1):
            if self.late:
                self.sck.value(1 - self.idle)
            if self.mosi:
                self.mosi.value(out >> k & 1)
            time.sleep_us(1)
            self.sck.value(self.idle if self.late else 1 - self.idle)
            if self.miso:
                got |= self.miso.value() << k
            time.sleep_us(1)
            if not self.late:
                self.sck.value(self.idle)
        return got

    def swap(self, data, n):
        """One message: bytes out, then bytes in."""
        self.sck.value(self.idle)
        self.cs.value(0)
        for x in data:
            self.byte(x)
        got = bytes([self.byte(0) for _ in range(n)])
        self.cs.value(1)
        return got
`,
    },
    imports: () => ["from lib.spi import Spi"],
    setup: (p) => `${p.id}_spi = Spi(${[...lines(p, (n) => `pins.${n}`, "None"), mode(p)].join(", ")})`,
    write: (p, bytes) => `${p.id}_spi.swap(${bytes}, 0)`,
    read: (p, n, from) => `b = ${p.id}_spi.swap(b"${escaped(from ?? [])}", ${n})`,
  }),
};
