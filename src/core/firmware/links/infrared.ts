import { EDGES } from "../drivers/edges";
import { TOO_FINE } from "./onewire";
import type { Link } from "./types";

/**
 * A receiver for remote controls, whose line falls when light comes: a start of 13.5 ms from fall to fall, 32 bits of 1.125 or 2.25,
 * the last byte the third turned over; 11.25 ms while the key is held. Four bytes: how many codes have come, whether the key is held,
 * the remote's address, the key.
 */
export const infrared: Link<"infrared"> = {
  unfit: (target) =>
    target === "python"
      ? TOO_FINE
      : target === "avr-c"
        ? "plain C does not listen to its line by interrupts: what comes there is for your own code"
        : null,
  c: ({ pin }) => ({
    stands: [EDGES],
    helpers: `// Codes of a remote control, told by the time between two falls of the line.
struct Infrared {
  uint8_t pin;
  bool hears, was;
  uint32_t fell, bits;
  uint8_t n;
  volatile uint8_t count, address, key;
  volatile bool any;
  volatile uint32_t seen;
  void IRAM_ATTR edge() {
    bool now = digitalRead(pin);
    if (now == was) return;
    was = now;
    if (now) return;
    uint32_t t = micros(), gap = t - fell;
    fell = t;
    if (gap > 12500 && gap < 14500) {
      n = 0;
      bits = 0;
    } else if (gap > 10500 && gap < 12500) seen = millis();
    else if (n < 32 && ((gap > 900 && gap < 1400) || (gap > 1900 && gap < 2600))) {
      bits = bits >> 1 | (gap > 1600 ? 0x80000000UL : 0);
      if (++n < 32 || ((uint8_t)(bits >> 16) ^ (uint8_t)(bits >> 24)) != 255) return;
      address = bits;
      key = bits >> 16;
      count++;
      any = true;
      seen = millis();
    } else n = 255;
  }
  bool take(uint8_t *to) {
    noInterrupts();
    bool held = any && millis() - seen < 250;
    const uint8_t list[] = {count, held, address, key};
    interrupts();
    memcpy(to, list, sizeof list);
    return hears;
  }
};`,
    globals: (p) => `static Infrared ${p.id}_light = {${p.pin(pin)}, false, true, 0, 0, 255, 0, 0, 0, false, 0};
static void IRAM_ATTR ${p.id}_edge() { ${p.id}_light.edge(); }`,
    setup: (p) => `pinMode(${p.pin(pin)}, INPUT);\n${p.id}_light.hears = watchEdges(${p.pin(pin)}, ${p.id}_edge);`,
    write: () => "",
    read: (p) => `${p.id}_light.take(b)`,
  }),
  python: ({ pin }) => ({
    lib: {
      path: "lib/infrared.py",
      text: `from machine import Pin
import time


class Infrared:
    """Codes of a remote control, told by the time between two falls of the line."""

    def __init__(self, pin):
        self.pin = Pin(pin, Pin.IN)
        self.last = time.ticks_us()
        self.n = 255
        self.bits = 0
        self.count = self.address = self.key = 0
        self.seen = None
        self.pin.irq(self.fell, Pin.IRQ_FALLING)

    def fell(self, pin):
        now = time.ticks_us()
        gap = time.ticks_diff(now, self.last)
        self.last = now
        if 12500 < gap < 14500:
            self.n = 0
            self.bits = 0
        elif 10500 < gap < 12500:
            if self.seen is not None:
                self.seen = time.ticks_ms()
        elif self.n < 32 and (900 < gap < 1400 or 1900 < gap < 2600):
            if gap > 1600:
                self.bits |= 1 << self.n
            self.n += 1
            if self.n == 32 and (self.bits >> 16 ^ self.bits >> 24) & 255 == 255:
                self.address = self.bits & 255
                self.key = self.bits >> 16 & 255
                self.count = self.count + 1 & 255
                self.seen = time.ticks_ms()
        else:
            self.n = 255

    def get(self, n):
        held = self.seen is not None and time.ticks_diff(time.ticks_ms(), self.seen) < 250
        return bytes((self.count, 1 if held else 0, self.address, self.key))
`,
    },
    imports: () => ["from lib.infrared import Infrared"],
    setup: (p) => `${p.id}_light = Infrared(pins.${p.pin(pin)})`,
    write: () => "pass",
    read: (p, n) => `b = ${p.id}_light.get(${n})`,
  }),
};
