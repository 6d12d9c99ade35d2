import { listInC, type Link } from "./types";

/** Registers in a chain: the bit that goes out first ends furthest from the board. */
export const shift: Link<"shift"> = {
  c: ({ data, clock, latch, way }) => ({
    helpers:
      way === "out"
        ? `// Bytes into a chain of registers; they show when the latch rises.
static void __attribute__((unused)) shiftPut(uint8_t data, uint8_t clock, uint8_t latch, const uint8_t *list, uint8_t n) {
  while (n--) {
    uint8_t out = *list++;
    for (uint8_t bit = 0x80; bit; bit >>= 1) {
      digitalWrite(data, out & bit ? HIGH : LOW);
      delayMicroseconds(1);
      digitalWrite(clock, HIGH);
      delayMicroseconds(1);
      digitalWrite(clock, LOW);
    }
  }
  digitalWrite(latch, HIGH);
  delayMicroseconds(1);
  digitalWrite(latch, LOW);
}`
        : `// Bytes out of a chain of registers; a low of the latch takes the inputs over.
static bool __attribute__((unused)) shiftGet(uint8_t data, uint8_t clock, uint8_t latch, uint8_t *to, uint8_t n) {
  digitalWrite(latch, LOW);
  delayMicroseconds(1);
  digitalWrite(latch, HIGH);
  while (n--) {
    *to = 0;
    for (uint8_t bit = 0x80; bit; bit >>= 1) {
      *to = *to << 1 | (digitalRead(data) ? 1 : 0);
      digitalWrite(clock, HIGH);
      delayMicroseconds(1);
      digitalWrite(clock, LOW);
      delayMicroseconds(1);
    }
    to++;
  }
  return true;
}`,
    write: (p, bytes) =>
      listInC(bytes, (list, n) => `shiftPut(${p.pin(data)}, ${p.pin(clock)}, ${p.pin(latch)}, ${list}, ${n});`),
    read: (p, n) => `shiftGet(${p.pin(data)}, ${p.pin(clock)}, ${p.pin(latch)}, b, ${n})`,
  }),
  python: ({ data, clock, latch, way }) => ({
    lib: {
      path: "lib/shift.py",
      text: `from machine import Pin


class ShiftOut:
    """Bytes into a chain of registers; they show when the latch rises."""

    def __init__(self, data, clock, latch):
        self.data, self.clock, self.latch = [Pin(p, Pin.OUT, value=0) for p in (data, clock, latch)]

    def put(self, data):
        for x in data:
            for k in range(7, -1, -1):
                self.data.value(x >> k & 1)
                self.clock.value(1)
                self.clock.value(0)
        self.latch.value(1)
        self.latch.value(0)


class ShiftIn:
    """Bytes out of a chain of registers; a low of the latch takes the inputs over."""

    def __init__(self, data, clock, latch):
        self.data = Pin(data, Pin.IN)
        self.clock = Pin(clock, Pin.OUT, value=0)
        self.latch = Pin(latch, Pin.OUT, value=1)

    def get(self, n):
        self.latch.value(0)
        self.latch.value(1)
        got = bytearray(n)
        for i in range(n):
            for _ in range(8):
                got[i] = got[i] << 1 & 255 | self.data.value()
                self.clock.value(1)
                self.clock.value(0)
        return bytes(got)
`,
    },
    imports: () => [`from lib.shift import Shift${way === "in" ? "In" : "Out"}`],
    setup: (p) =>
      `${p.id}_wire = Shift${way === "in" ? "In" : "Out"}(${[data, clock, latch].map((l) => `pins.${p.pin(l)}`).join(", ")})`,
    write: (p, bytes) => `${p.id}_wire.put(${bytes})`,
    read: (p, n) => `b = ${p.id}_wire.get(${n})`,
  }),
};
