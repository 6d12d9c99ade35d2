import { escaped, listInC, type Link } from "./types";

/** Why a computer can't time such a wire. */
export const TOO_FINE = "its wire is timed in microseconds, which a program on a computer can't promise";

/** One wire for many parts, timed by the program; the line is only pulled low or let go. */
export const onewire: Link<"onewire"> = {
  unfit: (target) => (target === "python" ? TOO_FINE : null),
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
static uint8_t __attribute__((unused)) oneByte(uint8_t pin, uint8_t out) {
  uint8_t in = 0;
  for (uint8_t bit = 1; bit; bit <<= 1) {
    digitalWrite(pin, LOW);
    noInterrupts();
    pinMode(pin, OUTPUT);
    if (!(out & bit)) delayMicroseconds(60);
    else delayMicroseconds(2);
    pinMode(pin, INPUT);
    delayMicroseconds(2);
    if (digitalRead(pin)) in |= bit;
    interrupts();
    if (out & bit) delayMicroseconds(58);
    delayMicroseconds(5);
  }
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
    write: (p, bytes) => listInC(bytes, (list, n) => `if (!oneSwap(${p.pin(pin)}, ${list}, ${n}, nullptr, 0)) break;`),
    read: (p, n, from) =>
      `oneSwap(${p.pin(pin)}, (const uint8_t *)"${escaped(from ?? [])}", ${from?.length ?? 0}, b, ${n})`,
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
`,
    },
    imports: () => ["from lib.one import One"],
    setup: (p) => `${p.id}_one = One(pins.${p.pin(pin)})`,
    write: (p, bytes) => `${p.id}_one.swap(${bytes}, 0)`,
    read: (p, n, from) => `b = ${p.id}_one.swap(b"${escaped(from ?? [])}", ${n})`,
  }),
};
