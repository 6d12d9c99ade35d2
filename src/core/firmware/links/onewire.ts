import type { DriverPart } from "../types";
import { escaped, listInC, type Link } from "./types";

/** Why a computer can't time such a wire. */
export const TOO_FINE = "its wire is timed in microseconds, which a program on a computer can't promise";

/** Parts of one wire call each other by the name of its first. */
const wireOf = (p: DriverPart) => `${p.mates!.first}_wire`;

/** Whom the program talks to on a wire of several: the first byte, which calls all of them, gives way to a code. */
const CODES = `// Codes of all parts on a wire, in ascending order, eight bytes each; how many there are.
static uint8_t __attribute__((unused)) oneSearch(uint8_t pin, uint8_t *codes, uint8_t most) {
  uint8_t n = 0, code[8] = {0};
  int8_t last = -1;
  do {
    if (!oneReset(pin)) return 0;
    oneByte(pin, 0xF0);
    int8_t fork = -1;
    for (int8_t i = 0; i < 64; i++) {
      uint8_t mask = 1 << (i & 7), bit = oneBit(pin, 1), other = oneBit(pin, 1);
      if (bit && other) return 0;
      // Some have a 0 here and some a 1: one way first, the other the next time.
      if (!bit && !other) {
        bit = i < last ? (code[i >> 3] & mask) != 0 : i == last;
        if (!bit) fork = i;
      }
      if (bit) code[i >> 3] |= mask;
      else code[i >> 3] &= (uint8_t)~mask;
      oneBit(pin, bit);
    }
    if (crc8Low(code, 7, 0x8C, 0) != code[7]) return 0;
    if (n < most) {
      uint8_t at = n;
      while (at && memcmp(codes + 8 * (at - 1), code, 8) > 0) {
        memcpy(codes + 8 * at, codes + 8 * (at - 1), 8);
        at--;
      }
      memcpy(codes + 8 * at, code, 8);
    }
    n++;
    last = fork;
  } while (last >= 0 && n <= most);
  return n;
}
static bool __attribute__((unused)) oneCall(uint8_t pin, const uint8_t *code, const uint8_t *list, uint8_t k, uint8_t *to, uint8_t n) {
  if (!oneReset(pin)) return false;
  oneByte(pin, 0x55);
  for (uint8_t i = 0; i < 8; i++) oneByte(pin, code[i]);
  // Without the byte that calls all.
  while (--k) oneByte(pin, *++list);
  while (n--) *to++ = oneByte(pin, 0xFF);
  return true;
}`;

/** A call in C up to what goes out. */
const swap = (p: DriverPart, pin: string) => (p.mates ? `${wireOf(p)}(${p.mates.index}, ` : `oneSwap(${p.pin(pin)}, `);

/** One wire for many parts, timed by the program; the line is only pulled low or let go. */
export const onewire: Link<"onewire"> = {
  c: ({ pin }) => ({
    helpers: `// One wire: pulled low or let go, never driven high. Slots are 70 us, with interrupts off only while they must be.
static bool __attribute__((unused)) oneReset(uint8_t pin) {
  digitalWrite(pin, LOW);
  pinMode(pin, OUTPUT);
  delayMicroseconds(490);
  noInterrupts();
  pinMode(pin, INPUT);
  delayMicroseconds(70);
  bool there = digitalRead(pin) == LOW;
  interrupts();
  delayMicroseconds(420);
  // A line that stays low is no answer.
  return there && digitalRead(pin) == HIGH;
}
static uint8_t __attribute__((unused)) oneBit(uint8_t pin, uint8_t out) {
  digitalWrite(pin, LOW);
  noInterrupts();
  pinMode(pin, OUTPUT);
  if (!out) delayMicroseconds(60);
  else delayMicroseconds(2);
  pinMode(pin, INPUT);
  delayMicroseconds(2);
  uint8_t in = digitalRead(pin) ? 1 : 0;
  interrupts();
  if (out) delayMicroseconds(58);
  delayMicroseconds(5);
  return in;
}
static uint8_t __attribute__((unused)) oneByte(uint8_t pin, uint8_t out) {
  uint8_t in = 0;
  for (uint8_t bit = 1; bit; bit <<= 1)
    if (oneBit(pin, out & bit)) in |= bit;
  return in;
}
// One message: all are called, bytes go out, then bytes come in.
static bool __attribute__((unused)) oneSwap(uint8_t pin, const uint8_t *list, uint8_t k, uint8_t *to, uint8_t n) {
  if (!oneReset(pin)) return false;
  while (k--) oneByte(pin, *list++);
  while (n--) *to++ = oneByte(pin, 0xFF);
  return true;
}`,
    setup: (p) => `pinMode(${p.pin(pin)}, INPUT);`,
    moreFor: (p) => (p.mates ? [CODES] : []),
    globals: (p) =>
      p.mates?.index === 0
        ? `static uint8_t ${wireOf(p)}_codes[${8 * p.mates.count}];
static uint8_t ${wireOf(p)}_found = 0;
// One of the ${p.mates.count} parts on the wire, by the order of their codes. Who is who is not known until all have been found.
static bool ${wireOf(p)}(uint8_t which, const uint8_t *list, uint8_t k, uint8_t *to, uint8_t n) {
  if (${wireOf(p)}_found != ${p.mates.count}) ${wireOf(p)}_found = oneSearch(${p.pin(pin)}, ${wireOf(p)}_codes, ${p.mates.count});
  return ${wireOf(p)}_found == ${p.mates.count} && oneCall(${p.pin(pin)}, ${wireOf(p)}_codes + 8 * which, list, k, to, n);
}`
        : "",
    write: (p, bytes) => listInC(bytes, (list, n) => `if (!${swap(p, pin)}${list}, ${n}, nullptr, 0)) break;`),
    tells: (p) =>
      p.mates
        ? `if (${wireOf(p)}_found == ${p.mates.count}) {
  Serial.print(F("YL1 code ${p.ref} is="));
  for (uint8_t i = 0; i < 8; i++) {
    Serial.print(${wireOf(p)}_codes[${8 * p.mates.index} + i] >> 4, HEX);
    Serial.print(${wireOf(p)}_codes[${8 * p.mates.index} + i] & 15, HEX);
  }
  Serial.println(F(" info"));
}`
        : "",
    read: (p, n, from) => `${swap(p, pin)}(const uint8_t *)"${escaped(from ?? [])}", ${from?.length ?? 0}, b, ${n})`,
  }),
  python: ({ pin }) => ({
    lib: {
      path: "lib/one.py",
      text: `from machine import Pin
from onewire import OneWire


class One:
    """One wire for many parts: pulled low or let go, never driven high."""

    def __init__(self, pin):
        self.wire = OneWire(Pin(pin))

    def swap(self, data, n):
        """One message: all are called, bytes go out, then bytes come in."""
        if not self.wire.reset():
            raise OSError(19)
        self.wire.write(data)
        return bytes([self.wire.readbyte() for _ in range(n)])


class Wire:
    """The same with several parts, told apart by the order of their codes: who is who is not known until all have been found."""

    def __init__(self, pin, count):
        self.wire = OneWire(Pin(pin))
        self.count = count
        self.codes = ()

    def swap(self, which, data, n):
        if len(self.codes) != self.count:
            self.codes = sorted([bytes(c) for c in self.wire.scan()])
        if len(self.codes) != self.count or not self.wire.reset():
            raise OSError(19)
        # Its code in place of the byte that calls all.
        self.wire.write(b"\\x55" + self.codes[which] + data[1:])
        return bytes([self.wire.readbyte() for _ in range(n)])


class OneOf:
    """One of the parts on such a wire."""

    def __init__(self, wire, which):
        self.wire = wire
        self.which = which

    def swap(self, data, n):
        return self.wire.swap(self.which, data, n)
`,
    },
    imports: (p) => [p.mates ? "from lib.one import OneOf, Wire" : "from lib.one import One"],
    setup: (p) =>
      p.mates
        ? `${p.mates.index ? "" : `${wireOf(p)} = Wire(pins.${p.pin(pin)}, ${p.mates.count})\n`}${p.id}_one = OneOf(${wireOf(p)}, ${p.mates.index})`
        : `${p.id}_one = One(pins.${p.pin(pin)})`,
    tells: (p) =>
      p.mates
        ? `if len(${wireOf(p)}.codes) == ${p.mates.count}:\n    print("YL1 code ${p.ref} is=%s info" % "".join(["%02X" % v for v in ${wireOf(p)}.codes[${p.mates.index}]]))`
        : "",
    write: (p, bytes) => `${p.id}_one.swap(${bytes}, 0)`,
    read: (p, n, from) => `b = ${p.id}_one.swap(b"${escaped(from ?? [])}", ${n})`,
  }),
};
